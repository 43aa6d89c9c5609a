import { QueryTypes } from 'sequelize';
import { v7 as newKey } from 'uuid';
import { describe, expect, it } from 'vitest';
import { database, databaseAnswers, ensureDatabase, inTransaction, type Tx } from '../../src/data/database';
import { migrate } from '../../src/data/migrations';
import { onChange } from '../../src/data/notifications';
import { bookIn, record, viewJob } from '../../src/services/jobs';
import { must } from '../support/must';
import { person } from '../support/people';

const query = <Row extends object>(sql: string, bind: unknown[] = []) =>
  database().query<Row>(sql, { bind, type: QueryTypes.SELECT });
const change = (wanted: string | undefined) =>
  new Promise<void>((resolve) => {
    const stop = onChange((jobId) => {
      if (jobId !== wanted) return;
      stop();
      resolve();
    });
  });
/** Until the listening connection is there: it is made at the first call. */
const listening = async () => {
  for (;;) {
    const [found] = await query<{ pid: number }>(
      "SELECT pid FROM pg_stat_activity WHERE query LIKE 'LISTEN%' AND datname = current_database() LIMIT 1",
    );
    if (found) return found.pid;
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
};

describe('migrations', () => {
  it('run once, however many starters there are', async () => {
    expect(await Promise.all([migrate(), migrate(), migrate()])).toEqual([[], [], []]);
    expect(await query('SELECT name FROM migrations ORDER BY name')).toEqual([
      { name: '0001-first' },
      { name: '0002-instruments' },
      { name: '0003-confirmations' },
      { name: '0004-as-read' },
      { name: '0005-revisions' },
      { name: '0006-names' },
      { name: '0007-procedures' },
      { name: '0008-runs' },
      { name: '0009-parts' },
      { name: '0010-flags' },
      { name: '0011-services' },
      { name: '0012-thresholds' },
      { name: '0013-shop-surroundings' },
      { name: '0014-life-of-a-job' },
      { name: '0015-pins' },
      { name: '0016-by-file' },
      { name: '0017-doors' },
      { name: '0018-news' },
      { name: '0019-memory' },
      { name: '0020-wheel-sets' },
      { name: '0021-follow-ups-by-job' },
      { name: '0022-open-doors' },
      { name: '0023-second-factor' },
      { name: '0024-people-news' },
      { name: '0025-marks' },
      { name: '0026-backups' },
      { name: '0027-proposals' },
    ]);
  });

  it('leave indexes for the Yard and for a vehicle’s history', async () => {
    const names = (
      await query<{ indexname: string }>(
        "SELECT indexname FROM pg_indexes WHERE tablename IN ('jobs', 'observations', 'wheels')",
      )
    ).map(({ indexname }) => indexname);
    for (const index of [
      'jobs_open',
      'jobs_handed_over',
      'jobs_by_vehicle',
      'observations_by_job',
      'wheels_by_sensor_id',
    ]) {
      expect(names).toContain(index);
    }
  });

  it('a database that is there already is left alone', async () => {
    const url = new URL(process.env.DATABASE_URL ?? '');
    const name = url.pathname.slice(1);
    url.pathname = '/postgres';
    await ensureDatabase(url.href, name);
    expect(await databaseAnswers()).toBe(true);
  });
});

describe('a use case', () => {
  it('stores all of it or nothing', async () => {
    const key = newKey();
    const failing = inTransaction(async (tx) => {
      await database().query(
        "INSERT INTO profiles (name, label, tpms, placard) VALUES ($1, 'x', '{}', '[]')",
        { bind: [key], transaction: tx },
      );
      throw new Error('the second half fails');
    });
    await expect(failing).rejects.toThrow('second half');
    expect(await query('SELECT * FROM profiles WHERE name = $1', [key])).toEqual([]);
  });
});

describe('a statement', () => {
  it('with parameters is prepared once for a connection, however often it is asked', async () => {
    const text = 'SELECT $1::int + 1 AS next';
    await inTransaction(async (transaction) => {
      for (const n of [1, 2, 3]) {
        const asked = { bind: [n], type: QueryTypes.SELECT as const, transaction };
        expect(await database().query(text, asked)).toEqual([{ next: n + 1 }]);
      }
      // PostgreSQL 15 manual, 54.17: the statements prepared in this connection, with the text each was asked with.
      const [prepared] = await database().query<{ count: number }>(
        `SELECT count(*)::int AS count FROM pg_prepared_statements WHERE statement = '${text}'`,
        { type: QueryTypes.SELECT, transaction },
      );
      expect(prepared?.count).toBe(1);
    });
  });
});

describe('news of a job', () => {
  const booked = async () =>
    must(await bookIn({ key: newKey(), vehicle: { label: 'Corriente Vela' } }, person())).id;
  const touch = (id: string, transaction: Tx) =>
    database().query('UPDATE jobs SET version = version WHERE id = $1', { bind: [id], transaction });

  it('comes when its transaction commits, and not if it does not', async () => {
    const id = await booked();
    let heard = false;
    const stop = onChange((jobId) => (heard ||= jobId === id));
    await listening();
    await inTransaction(async (tx) => {
      await touch(id, tx);
      throw new Error('rolled back');
    }).catch(() => undefined);
    await new Promise((resolve) => setTimeout(resolve, 200));
    expect(heard).toBe(false);
    stop();
    const news = change(id);
    await inTransaction((tx) => touch(id, tx));
    await news;
  });

  it('that may have been missed while the connection was away is told as such, and news comes again', async () => {
    const pid = await listening();
    const missed = change(undefined);
    await query('SELECT pg_terminate_backend($1)', [pid]);
    await missed;
    const id = await booked();
    const news = change(id);
    await inTransaction((tx) => touch(id, tx));
    await news;
  });
});

describe('a job', () => {
  it('is seen as it was answered with, and as it is once anything it rests on was changed', async () => {
    const who = person('technician');
    const { id } = must(await bookIn({ key: newKey(), vehicle: { label: 'Corriente Vela' } }, who));
    const seen = { kind: 'lamp', at: new Date().toISOString(), state: 'steady' } as const;
    const answered = must(await record(id, { key: newKey(), observation: seen }, who));
    expect(must(await viewJob(id))).toBe(answered);
    // By another process, which this one hears nothing of.
    await query(
      "UPDATE jobs SET header = jsonb_set(header, '{vehicle,label}', '\"Corriente Luz\"') WHERE id = $1",
      [id],
    );
    expect(must(await viewJob(id)).job.vehicle.label).toBe('Corriente Luz');
  });

  it('that a reading was refused for is seen as it was before', async () => {
    const who = person('technician');
    const { id } = must(await bookIn({ key: newKey(), vehicle: { label: 'Corriente Vela' } }, who));
    const seen = { kind: 'lamp', at: new Date().toISOString(), state: 'steady' } as const;
    await expect(record(id, { key: 'no key at all', observation: seen }, who)).rejects.toThrow();
    expect(must(await viewJob(id)).job.observations).toEqual([]);
  });

  it('nobody opened is not found', async () => {
    expect(await viewJob(newKey())).toMatchObject({ ok: false, problem: { code: 'unknown-job' } });
  });

  it('has a number of its own, counted up', async () => {
    const book = () => bookIn({ key: newKey(), vehicle: { label: 'Ostrel Menta' } }, person());
    const [one, two] = [await book(), await book()];
    expect(one.ok && two.ok && two.value.number - one.value.number).toBe(1);
  });

  it('of a kind of vehicle that is not on file is refused with what to do', async () => {
    const booked = await bookIn(
      { key: newKey(), vehicle: { label: 'Unknown', profile: 'no-such-kind' } },
      person(),
    );
    expect(booked).toMatchObject({
      ok: false,
      problem: { code: 'unknown-profile', message: expect.stringContaining('Choose one') },
    });
  });
});
