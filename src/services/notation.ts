import { isTimeZone } from '../core/measure/region';
import type { UnitChoice, Notation } from '../core/measure/units';
import { notationOf, type ShopSettings } from '../core/records/shop';

const { timeZone } = Intl.DateTimeFormat().resolvedOptions();
/** Where this machine stands. */
const serverZone = isTimeZone(timeZone) ? timeZone : 'UTC';

/** How somebody of this shop reads; `own`: units of their own. */
export const notationHere = (shop: ShopSettings, own: Partial<UnitChoice> | null = null): Notation =>
  notationOf(shop, serverZone, own);
