import { success } from '../../core/result';
import { chainShops, refuseLooking } from '../../services/chain';
import { cookieKept, lookingCookie, serve } from '../_http';

const hours = 12;

export const GET = serve('chainShops', ({ query, who }) => chainShops(who, query.zone));

export const POST = serve('lookInto', async ({ body: { shop }, who, context }) => {
  const refusal = await refuseLooking(who, shop);
  if (refusal) return refusal;
  if (shop === null) context.cookies.delete(lookingCookie, { path: '/' });
  else context.cookies.set(lookingCookie, shop, cookieKept(hours * 3600));
  return success(null);
});
