import pg from 'pg';
import { databaseUrl } from './database';

/**
 * Who is at a car, across all server processes: one at a time. A lease is a lock of a database session of its own, so that
 * a process that dies loses it at once.
 */
interface Lease {
  end: () => Promise<void>;
}

/** Whoever only reads waits so long for whoever is at it, ms. */
const patienceMs = 8_000;

/** The lease of a car; undefined where somebody else has it, at once or, for who can wait, after a while. */
export async function takeCar(car: string, wait: 'no' | 'for-it'): Promise<Lease | undefined> {
  const client = new pg.Client({ connectionString: databaseUrl(), keepAlive: true });
  // A lost session is a lost lease; what was at the car notices by the car.
  client.on('error', () => undefined);
  await client.connect();
  const end = () => client.end().catch(() => undefined);
  try {
    if (await taken(client, car, wait)) return { end };
  } catch (error) {
    await end();
    throw error;
  }
  await end();
  return undefined;
}

async function taken(client: pg.Client, car: string, wait: 'no' | 'for-it'): Promise<boolean> {
  const key = `car ${car}`;
  if (wait === 'no') {
    const { rows } = await client.query<{ had: boolean }>(
      'SELECT pg_try_advisory_lock(hashtextextended($1, 0)) AS had',
      [key],
    );
    return rows[0]?.had === true;
  }
  await client.query(`SET lock_timeout = ${patienceMs}`);
  return client.query('SELECT pg_advisory_lock(hashtextextended($1, 0))', [key]).then(
    () => true,
    (error: unknown) => {
      // 55P03: it was not had in time.
      if (error instanceof pg.DatabaseError && error.code === '55P03') return false;
      throw error;
    },
  );
}
