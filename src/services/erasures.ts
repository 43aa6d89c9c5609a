import { carsInShop, unknownCustomer } from '../contract/refusals';
import { success, type Result } from '../core/result';
import { inTransaction } from '../data/database';
import * as erasures from '../data/erasures';
import { refuseUnless, type Person } from './people';

/**
 * Deletes what is known of a customer: name, phone, plates, VINs, what they said and signed. What their cars' wheels and
 * sensors had stays as facts of nobody. Sent twice it is done once. Backups made before still hold it. Problems:
 * `not-allowed`, `unknown-customer`, `cars-in-shop`.
 */
export function eraseCustomer(id: string, key: string, who: Person): Promise<Result<erasures.Erased>> {
  return inTransaction(async (tx) => {
    const refusal = refuseUnless(who, 'manage-shop');
    if (refusal) return refusal;
    const done = await erasures.findErasure(tx, key);
    if (done) return success(done);
    const customer = await erasures.findCustomer(tx, id);
    if (!customer) return unknownCustomer();
    const open = await erasures.openJobNumbers(tx, id);
    if (open.length > 0) return carsInShop(open);
    return success(await erasures.eraseCustomer(tx, customer, { key, by: who.name }));
  });
}
