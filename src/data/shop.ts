import { shopSettingsSchema, usualSettings, type ShopSettings } from '../core/records/shop';
import { z } from 'zod';
import type { Tx } from './database';
import { ShopRow } from './models';

const theShop = 1;

/** What holds for the whole shop; the usual where nobody set it. */
export async function loadShop(tx: Tx): Promise<ShopSettings> {
  return settingsFrom((await ShopRow.findByPk(theShop, { transaction: tx }))?.settings);
}

/** Settings as they were stored; one that came later than the row has its usual value. */
export function settingsFrom(stored: unknown): ShopSettings {
  const parsed = shopSettingsSchema.safeParse(
    Object.assign({}, usualSettings, regionByPaper(stored), stored),
  );
  return parsed.success ? parsed.data : usualSettings;
}

/** Before a shop had a region it had its paper alone, and Letter is a paper of the United States. */
const regionByPaper = (stored: unknown) =>
  z.object({ paper: z.literal('Letter') }).safeParse(stored).success ? { region: 'US' } : {};

export const saveShop = (tx: Tx, settings: ShopSettings, by: string) =>
  ShopRow.upsert({ id: theShop, settings, updatedAt: new Date(), updatedBy: by }, { transaction: tx });
