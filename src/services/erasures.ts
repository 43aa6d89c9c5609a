import { v7 as newKey } from 'uuid';
import { carsInShop, unknownCustomer } from '../contract/refusals';
import { success, type Result } from '../core/result';
import { inTransaction } from '../data/database';
import * as erasures from '../data/erasures';
import { log } from './log';
import { refuseUnless, type Person } from './people';
import { shopSettings } from './shop';

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

/** So many cars of nobody at a time: nothing else waits for long. */
const carsAtOnce = 100;

/**
 * Forgets whoever was not here for as many years as the shop keeps people, as if each had asked for it: customers with
 * all their cars, and cars nobody's name stands at. Gives back how many.
 */
export async function forgetLongAway(now = new Date()): Promise<{ customers: number; cars: number }> {
  const forgotten = { customers: 0, cars: 0 };
  const { forgetAfterYears: years, forgetFrom } = await shopSettings();
  if (years === null || forgetFrom === null || now < new Date(forgetFrom)) return forgotten;
  const before = new Date(now);
  before.setFullYear(now.getFullYear() - years);
  const by = `not here for ${years} years`;
  const one = () =>
    inTransaction(async (tx) => {
      const customer = await erasures.customerLongAway(tx, before);
      return customer && erasures.eraseCustomer(tx, customer, { key: newKey(), by });
    });
  for (let erased = await one(); erased; erased = await one()) {
    forgotten.customers += 1;
    forgotten.cars += erased.cars;
  }
  const some = () =>
    inTransaction(async (tx) => {
      const cars = await erasures.carsLongAway(tx, before, carsAtOnce);
      return cars.length > 0 ? erasures.eraseCars(tx, cars, { key: newKey(), by }) : undefined;
    });
  for (let erased = await some(); erased; erased = await some()) forgotten.cars += erased.cars;
  if (forgotten.customers + forgotten.cars > 0) log.info(forgotten, 'forgotten, as the shop set it');
  return forgotten;
}
