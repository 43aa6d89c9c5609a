import { setting } from '../../settings';
import type { ChainShops } from '../../contract/chain';
import { notOfChain, unknownShop } from '../../contract/refusals';
import { success, type Result } from '../../core/result';
import { shopsTable, type ShopFacts } from '../../core/records/shop-figures';
import { databaseUrl, inOwnShop, inSchema } from '../../data/database';
import { ownSchema, schemaOfShop, shopsIn } from '../../data/shops';
import { may, type Person } from '../people';
import { factsOfShop } from './shop-figures';

/**
 * A chain: several shops in one database, each seeing its own. The managers of the shop that is started with
 * `HACIENDA_CHAIN=1`, its head office, look into the others, and change nothing there.
 */
const isHeadOffice = (): boolean =>
  setting('HACIENDA_CHAIN') === true && setting('HACIENDA_SHOP') !== undefined;

export const looksIntoOthers = (who: Person): boolean => isHeadOffice() && may(who, 'see-figures');

/** The shops of the chain by name, without the head office itself. */
const otherShops = async (): Promise<string[]> =>
  (await shopsIn(databaseUrl())).filter((name) => schemaOfShop(name) !== ownSchema());

/** Problems: `not-allowed`, `unknown-shop`. */
export async function refuseLooking(who: Person, shop: string | null): Promise<Result<never> | undefined> {
  if (!looksIntoOthers(who)) return notOfChain();
  return shop === null || (await otherShops()).includes(shop) ? undefined : unknownShop();
}

/** Whatever is read in `work` is read in that shop; the database lets nothing be changed there. */
export const lookingInto = <Value>(shop: string, work: () => Value): Value =>
  inSchema(schemaOfShop(shop), work);

const weeks = 13;

/** The shops side by side, over the last quarter. Problem: `not-allowed`. */
export async function chainShops(
  who: Person,
  zone: string | undefined,
  now = new Date(),
): Promise<Result<ChainShops>> {
  if (!looksIntoOthers(who)) return notOfChain();
  const names = await inOwnShop(otherShops);
  const shops: { name: string; facts: ShopFacts }[] = [];
  for (const name of names)
    shops.push({
      name,
      facts: await lookingInto(name, () => factsOfShop({ weeks: String(weeks) as '13', zone }, now)),
    });
  return success({ shops: names, table: shopsTable(shops) });
}
