import { shopSettingsSchema, usualSettings, type ShopSettings } from '../core/shop';
import type { Tx } from './database';
import { ShopRow } from './models';

const theShop = 1;

/** What holds for the whole shop; the usual where nobody set it. */
export async function loadShop(tx: Tx): Promise<ShopSettings> {
  const row = await ShopRow.findByPk(theShop, { transaction: tx });
  // A setting that came later than the row has its usual value.
  const parsed = shopSettingsSchema.safeParse({ ...usualSettings, ...row?.settings });
  return parsed.success ? parsed.data : usualSettings;
}

export const saveShop = (tx: Tx, settings: ShopSettings, by: string) =>
  ShopRow.upsert({ id: theShop, settings, updatedAt: new Date(), updatedBy: by }, { transaction: tx });
