import { success } from '../../core/result';
import { cookieKept, lookingCookie } from '../_http';
import {
  apiTokens,
  endToken,
  makeToken,
  chainShops,
  refuseLooking,
  bringInList,
  checkList,
  customerLists,
  takeOutList,
  addWebhook,
  changeWebhook,
  toldAddresses,
} from '../../services/office';
import { eraseCustomer } from '../../services/erasures';
import { traces } from '../../services/looks';
import type { Works } from '../_http';

const lookingHours = 12;

/** What comes in and goes out beside the visits. */
export const officeWorks = {
  apiTokens: ({ who }) => apiTokens(who),
  makeToken: ({ body, who }) => makeToken(body, who),
  endToken: ({ id, who }) => endToken(id, who),
  toldAddresses: ({ who }) => toldAddresses(who),
  addWebhook: ({ body, who }) => addWebhook(body, who),
  changeWebhook: ({ id, body, who }) => changeWebhook(id, body, who),
  eraseCustomer: ({ id, body, who }) => eraseCustomer(id, body.key, who),
  traces: ({ query, who }) => traces(query, who),
  checkList: ({ body, who }) => checkList(body, who),
  customerLists: ({ who }) => customerLists(who),
  bringInList: ({ body, who }) => bringInList(body, who),
  takeOutList: ({ id, who }) => takeOutList(id, who),
  chainShops: ({ query, who }) => chainShops(who, query.zone),
  lookInto: async ({ body: { shop }, who, context }) => {
    const refusal = await refuseLooking(who, shop);
    if (refusal) return refusal;
    if (shop === null) context.cookies.delete(lookingCookie, { path: '/' });
    else context.cookies.set(lookingCookie, shop, cookieKept(lookingHours * 3600));
    return success(null);
  },
} satisfies Partial<Works>;
