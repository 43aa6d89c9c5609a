import { success, type Result } from '../core/result';
import { forgettingFrom, type ShopSettings } from '../core/records/shop';
import { inTransaction } from '../data/database';
import { peopleChanged } from '../data/notifications';
import { loadShop, saveShop } from '../data/shop';
import { useDevices } from './devices';
import { refuseUnless, type Person } from './people';
import { refuseWithoutOwn } from './second-factor';

/** What holds for the whole shop; the usual where nobody set it. */
export const shopSettings = (): Promise<ShopSettings> => inTransaction(loadShop);

/** Problems: `not-allowed`, `second-factor-first`. */
export function setShop(settings: ShopSettings, who: Person): Promise<Result<ShopSettings>> {
  return inTransaction(async (tx) => {
    const refusal =
      refuseUnless(who, 'manage-shop') ??
      (settings.managersNeedSecondFactor ? refuseWithoutOwn(who) : undefined);
    if (refusal) return refusal;
    const forgetFrom = forgettingFrom(settings, await loadShop(tx), new Date());
    const kept = { ...settings, forgetFrom };
    await saveShop(tx, kept, who.name);
    peopleChanged(tx);
    useDevices(kept.devices);
    return success(kept);
  });
}
