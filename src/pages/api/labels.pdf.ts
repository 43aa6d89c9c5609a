import type { APIRoute } from 'astro';
import { labelsToPrint } from '../../services/labels';
import { labelsPdf } from '../../services/labels-pdf';
import { askedLabels } from '../_labels';

/** Labels as a PDF on their stock. */
export const GET: APIRoute = async ({ url }) => {
  const { codes, stock, used } = askedLabels(url);
  const pdf = await labelsPdf(await labelsToPrint(codes), stock, used);
  return new Response(pdf as Uint8Array<ArrayBuffer>, {
    headers: { 'content-type': 'application/pdf', 'cache-control': 'no-store' },
  });
};
