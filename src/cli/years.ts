import { setting } from '../settings';
import { countOf } from '../data/bulk';
import { closeDatabase } from '../data/database';
import { migrate } from '../data/migrations';
import { fillYears } from '../services/years';
import { say, Trouble } from './say';
import { shopOfChain } from './serve';

/** People of shops that are made up. */
const people = ['Ines', 'Odalys', 'Renzo', 'Tulia'];
const yearsBack = 10;

/**
 * `years 3000`: ten simulated years of so many cars, into an empty shop of the database that `DATABASE_URL` names; of a chain
 * the one that `HACIENDA_SHOP` names, each with cars of its own.
 */
export async function years(vehicles: number): Promise<number> {
  if (!setting('DATABASE_URL'))
    throw new Trouble(
      'Name a database for it in DATABASE_URL: simulated cars have no place in a shop’s own.',
    );
  const { shop = '' } = shopOfChain();
  try {
    await migrate();
    if ((await countOf('jobs')) > 0) throw new Trouble('This shop has jobs already. Nothing was filled in.');
    const to = new Date();
    const from = new Date(to);
    from.setFullYear(from.getFullYear() - yearsBack);
    // Another name, other cars; the same name, the same.
    const seed = [...shop].reduce((sum, letter) => (sum * 31 + letter.charCodeAt(0)) % 1_000_003, 1);
    await fillYears({ vehicles, seed, from, to, people }, (done) => say(`${done} of ${vehicles} cars`));
  } finally {
    await closeDatabase();
  }
  return 0;
}
