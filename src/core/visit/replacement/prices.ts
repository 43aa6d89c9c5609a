import type { z } from 'zod';
import { figures } from './figures';
import type { pricesSchema } from '../../job/schemas/replacement';

/** What replacing a sensor costs in this shop, in its own currency; kept by the shop. Its schema is in `./schema`. */
export type Prices = z.infer<typeof pricesSchema>;

/** What it costs to replace a sensor now, and to come back for it once it has ended. */
export interface Costs {
  now: number;
  later: number;
}

/** `tireOff`: its tire comes off today anyway. */
export const costsOf = ({ sensor, tireWork, visit }: Prices, tireOff: boolean): Costs => ({
  now: sensor + (tireOff ? 0 : tireWork),
  later: sensor + tireWork + visit,
});

/**
 * From this chance on, 0 to 1, that it ends in time it is worth replacing now: where now costs no more than later times the
 * chance. Without prices of the shop's own: as likely as not.
 */
export function worthFrom(prices: Prices | undefined, tireOff: boolean): number {
  const usual = (tireOff ? figures.worthWithTireOff : figures.worthTakingOff).value;
  if (!prices) return usual;
  const { now, later } = costsOf(prices, tireOff);
  return later > 0 ? Math.min(1, now / later) : usual;
}

/** "60 now, 155 to come back for it". */
export const costWords = ({ now, later }: Costs, currency: string): string =>
  `${amount(now)} ${currency} now, ${amount(later)} ${currency} to come back for it`;

const amount = (value: number): string => (Number.isInteger(value) ? String(value) : value.toFixed(2));
