import { v7 as newKey } from 'uuid';
import { describe, expect, it, vi } from 'vitest';
import { database } from '../../src/data/database';
import { bookIn, record, yard } from '../../src/services/jobs';
import { person } from '../support/people';

const ines = person();

async function booked(label: string): Promise<string> {
  const made = await bookIn(
    { key: newKey(), vehicle: { label, plate: newKey().slice(-9), tpms: { kind: 'direct' } } },
    ines,
  );
  if (!made.ok) throw new Error(made.problem.message);
  return made.value.id;
}

/** The queries of some work, but for what opens and ends a transaction. */
async function queriesOf(work: () => Promise<unknown>): Promise<string[]> {
  const queries: string[] = [];
  // The library's own log, which its types leave out.
  const logger = database() as unknown as { log: (...parts: unknown[]) => void };
  const told = vi.spyOn(logger, 'log').mockImplementation((...[sql]: unknown[]) => {
    if (typeof sql === 'string' && !/(START TRANSACTION|COMMIT|SET SESSION)/.test(sql)) queries.push(sql);
  });
  await work();
  told.mockRestore();
  return queries;
}

describe('the Yard', () => {
  it('costs one query while nothing changes, and is told anew once something does', async () => {
    const id = await booked('Corriente Vela');
    const line = async () => (await yard()).find((one) => one.id === id);
    expect(await line()).toMatchObject({
      label: 'Corriente Vela',
      lamp: 'not-seen',
      move: { kind: 'placard' },
    });
    expect(await queriesOf(() => yard())).toHaveLength(1);
    const lamp = { kind: 'lamp' as const, at: new Date().toISOString(), state: 'steady' as const };
    await record(id, { key: newKey(), observation: lamp }, ines);
    expect(await line()).toMatchObject({ lamp: 'steady' });
    expect(await queriesOf(() => yard())).toHaveLength(1);
  });

  it('is the same for two who look at a time, and worked out once', async () => {
    await booked('Corriente Brisa');
    const [one, other] = await Promise.all([yard(), yard()]);
    expect(one).toEqual(other);
  });
});
