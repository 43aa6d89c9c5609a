import type { APIRoute } from 'astro';
import { unknownJob } from '../../../../contract/refusals';
import { sheetPdf } from '../../../../services/sheet-pdf';
import { isUuid, personOf, problemResponse, respond } from '../../../_http';

export const GET: APIRoute = async (context) => {
  const { id = '' } = context.params;
  if (!isUuid(id)) return respond(unknownJob());
  const made = await sheetPdf(id, personOf(context).units);
  if (!made.ok) return problemResponse(made.problem);
  return new Response(made.value as Uint8Array<ArrayBuffer>, {
    headers: { 'content-type': 'application/pdf', 'cache-control': 'no-store' },
  });
};
