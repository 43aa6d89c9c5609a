import type { Part } from '../core/sensor/part';
import { success, type Result } from '../core/result';
import { inTransaction } from '../data/database';
import * as parts from '../data/parts';
import { refuseUnless, type Person } from './people';

/** The catalogue of replacement sensors. */
export const listParts = (): Promise<Part[]> => inTransaction(parts.listParts);

/** Takes parts in by article number, all or none. Problem: `not-allowed`. */
export function saveParts(asked: readonly Part[], who: Person): Promise<Result<Part[]>> {
  return inTransaction(async (tx) => {
    const refusal = refuseUnless(who, 'manage-shop');
    if (refusal) return refusal;
    // In one order, so that two who take in the same parts do not wait for each other.
    for (const part of [...asked].sort((a, b) => (a.name < b.name ? -1 : 1)))
      await parts.savePart(tx, who.name, part);
    return success(await parts.listParts(tx));
  });
}
