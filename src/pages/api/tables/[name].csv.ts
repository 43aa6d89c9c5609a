import type { APIRoute } from 'astro';
import { toCsv } from '../../../services/csv';
import { tableNamed } from '../../../services/tables';
import { personOf, problemResponse } from '../../_http';

/** A list of the shop, as the screen shows it, as CSV. */
export const GET: APIRoute = async (context) => {
  const { name = '' } = context.params;
  const found = await tableNamed(name, Object.fromEntries(context.url.searchParams), personOf(context));
  if (!found.ok) return problemResponse(found.problem);
  return new Response(toCsv(found.value), {
    headers: {
      'content-type': 'text/csv; charset=utf-8; header=present',
      'content-disposition': `attachment; filename="${found.value.name}.csv"`,
      'cache-control': 'no-store',
    },
  });
};
