/**
 * What comes in and goes out beside the visits: lists of customers, told addresses, tokens of other programs, exports,
 * tables to take away, the figures of the shop, and the shops of a chain. This is its one door, for pages and the middleware.
 */
export { apiTokens, endToken, makeToken, readerOf } from './api-tokens';
export { chainShops, lookingInto, looksIntoOthers, refuseLooking } from './chain';
export { toCsv } from './csv';
export { bringInList, checkList, customerLists, takeOutList } from './customer-lists';
export { exportVehicle, jobLines } from './exports';
export { factsOfShop, figuresOfShop } from './shop-figures';
export { tableNamed, tableNames } from './tables';
export { addWebhook, changeWebhook, keepTelling, tellDue, toldAddresses } from './webhooks';
