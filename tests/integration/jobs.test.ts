import fc from 'fast-check';
import { QueryTypes } from 'sequelize';
import { v7 as newKey } from 'uuid';
import { describe, expect, it } from 'vitest';
import { proofOf } from '../../src/core/visit/proof';
import { sheetOf } from '../../src/core/visit/sheet';
import { parseJob } from '../../src/core/job/schema';
import { database } from '../../src/data/database';
import { shopFigures } from '../../src/services/confirmations';
import {
  bookIn,
  cancelJob,
  confirm,
  editJob,
  exportJob,
  handOver,
  importJob,
  record,
  reopenJob,
  viewJob,
  yard,
  verdictOf,
} from '../../src/services/jobs';
import { sheetOfJob, viewIn } from '../../src/services/jobs/view';
import { followUpsOf } from '../../src/services/follow-ups';
import { lookUp } from '../../src/services/vehicles';
import { exportedJob } from '../support/arbitrary-job';
import {
  direct,
  gauge,
  gauges,
  idsHeld,
  jobWith,
  lamp,
  lives,
  minute,
  registry,
  registryWrite,
  scans,
} from '../support/car';
import { must } from '../support/must';
import { person } from '../support/people';

const ines = person();
const count = async (table: string, jobId: string) =>
  Number(
    (
      await database().query<{ n: string }>(`SELECT count(*) AS n FROM ${table} WHERE job_id = $1`, {
        bind: [jobId],
        type: QueryTypes.SELECT,
      })
    )[0]?.n,
  );

async function newJob(vehicle: { plate?: string; vin?: string } = {}) {
  const booked = await bookIn({ key: newKey(), vehicle: { label: 'Corriente Vela', ...vehicle } }, ines);
  return must(booked).id;
}
const refused = (code: string) => ({ ok: false, problem: { code } });
const entry = (observation: ReturnType<typeof gauge>) => ({ key: newKey(), observation });

describe('a recorded thing', () => {
  it('sent twice is stored once, even at the same time', async () => {
    const id = await newJob();
    const reading = entry(gauge(1, 'LF', 230));
    await Promise.all([record(id, reading, ines), record(id, reading, ines), record(id, reading, ines)]);
    expect(await count('observations', id)).toBe(1);
  });

  it('with a key of another job is refused', async () => {
    const reading = entry(gauge(1, 'LF', 230));
    must(await record(await newJob(), reading, ines));
    expect(await record(await newJob(), reading, ines)).toMatchObject({
      ok: false,
      problem: { code: 'key-in-use' },
    });
  });

  it('comes back in the view that is read from the records, whoever recorded what meanwhile', async () => {
    const id = await newJob();
    const behind = (observation: ReturnType<typeof gauge>) =>
      // As another server process does.
      database().query(
        'INSERT INTO observations (key, job_id, kind, at, body, recorded_by) VALUES ($key, $id, $kind, $at, $body, $by)',
        {
          bind: {
            key: newKey(),
            id,
            kind: observation.kind,
            at: observation.at,
            body: observation,
            by: 'Pilar',
          },
        },
      );
    const all = [
      ...gauges(1, { RR: 219 }),
      lamp(9, 'steady'),
      ...scans(12),
      registry(20),
      ...lives(30, undefined, 60),
    ];
    for (const [n, observation] of all.entries()) {
      if (n === 3) await behind(gauge(4, 'RF', 140));
      const noted = { ...observation, note: 'left “as is”', more: [0.1, 1e-7, { b: null, a: -0 }] };
      const said = must(await record(id, { key: newKey(), observation: noted }, ines));
      expect(said).toEqual(must(await viewIn(undefined, id)));
      expect(said).toEqual(must(await viewJob(id)));
      expect(said.job.observations).toHaveLength(n + (n < 3 ? 1 : 2));
    }
  });

  it('is not taken once somebody else has closed the job', async () => {
    const id = await newJob();
    must(await record(id, entry(gauge(1, 'LF', 230)), ines));
    await database().query("UPDATE jobs SET state = 'cancelled', cancelled_at = now() WHERE id = $id", {
      bind: { id },
    });
    expect(await record(id, entry(gauge(2, 'LF', 231)), ines)).toMatchObject({
      ok: false,
      problem: { code: 'cancelled' },
    });
    expect(await count('observations', id)).toBe(1);
  });

  it('is put right by another that points to it; both stay, and only once', async () => {
    const id = await newJob();
    const wrong = entry(gauge(1, 'LF', 320));
    const right = { ...entry(gauge(1, 'LF', 230)), replaces: wrong.key };
    must(await record(id, wrong, ines));
    const view = must(await record(id, right, ines));
    expect(view.job.observations).toMatchObject([{ kPa: 230 }]);
    expect(view.job.corrected).toMatchObject([{ replacedBy: right.key, observation: { kPa: 320 } }]);
    const again = { ...entry(gauge(1, 'LF', 231)), replaces: wrong.key };
    expect(await record(id, again, ines)).toMatchObject({
      ok: false,
      problem: { code: 'already-corrected' },
    });
  });

  it('can be neither changed nor deleted, not even in the database', async () => {
    const id = await newJob();
    must(await record(id, entry(gauge(1, 'LF', 230)), ines));
    await expect(database().query('DELETE FROM observations')).rejects.toThrow(/append-only/);
    await expect(database().query("UPDATE observations SET body = '{}'")).rejects.toThrow(/append-only/);
  });

  it('is not taken from an adviser, but for the lamp', async () => {
    const id = await newJob();
    const pilar = person('adviser');
    expect(await record(id, entry(gauge(1, 'LF', 230)), pilar)).toMatchObject({
      ok: false,
      problem: { code: 'not-allowed' },
    });
    expect(await record(id, entry(lamp(1, 'off')), pilar)).toMatchObject({ ok: true });
  });
});

describe('a booking', () => {
  it('pressed twice opens one job', async () => {
    const key = newKey();
    const vehicle = { label: 'Ostrel Menta' };
    const pressed = await Promise.all([1, 2, 3].map(() => bookIn({ key, vehicle }, ines)));
    const again = must(await bookIn({ key, vehicle }, ines));
    for (const booked of pressed) expect(must(booked).id).toBe(again.id);
  });

  it('of a known plate or VIN brings the vehicle back, however it is written', async () => {
    const first = await newJob({ plate: 'abc 12-3', vin: '1111-1111-1111-1111-1' });
    must(await handOver(first, { key: newKey(), version: 1, unproved: 'in a hurry' }, ines));
    expect(await lookUp({ plate: 'ABC123' })).toMatchObject({ label: 'Corriente Vela', visits: 1 });
    await newJob({ vin: '11111111111111111' });
    expect(await lookUp({ vin: '11111111111111111' })).toMatchObject({ plate: 'ABC123', visits: 2 });
  });
});

describe('an edit', () => {
  const placard = (coldKPa: number) => ({ placard: [{ position: 'front' as const, coldKPa }] });

  it('on a stale version is refused with what changed, and overwrites nothing', async () => {
    const id = await newJob();
    const { version } = must(await viewJob(id));
    must(await editJob(id, { key: newKey(), version, changes: placard(230) }, person('manager')));
    const late = await editJob(id, { key: newKey(), version, changes: placard(250) }, ines);
    expect(late).toMatchObject({ ok: false, problem: { code: 'stale', issues: [{ path: 'placard' }] } });
    expect(must(await viewJob(id)).job.placard).toEqual(placard(230).placard);
  });

  it('of the counter is not a repair, which is done at the car', async () => {
    const id = await newJob();
    const { version } = must(await viewJob(id));
    const asCounter = (changes: Parameters<typeof editJob>[1]['changes']) =>
      editJob(id, { key: newKey(), version, changes }, person('adviser'));
    expect(await asCounter({ repairs: [{ wheel: 'RR', at: minute(0) }] })).toMatchObject(
      refused('not-allowed'),
    );
    expect(must(await viewJob(id)).job.repairs).toBeUndefined();
    expect(must(await asCounter({ complaint: 'lamp on since this morning' })).version).toBe(version + 1);
  });

  it('sent twice is made once', async () => {
    const id = await newJob();
    const { version } = must(await viewJob(id));
    const edit = { key: newKey(), version, changes: placard(240) };
    const first = must(await editJob(id, edit, ines));
    expect(must(await editJob(id, edit, ines)).version).toBe(first.version);
  });
});

describe('a job that somebody changed meanwhile', () => {
  it('is neither handed over, cancelled nor opened again on what it was', async () => {
    const id = await newJob();
    const old = must(await viewJob(id)).version;
    must(await editJob(id, { key: newKey(), version: old, changes: { complaint: 'pulls left' } }, ines));
    const late = { key: newKey(), version: old };
    expect(await handOver(id, { ...late, unproved: 'in a hurry' }, ines)).toMatchObject(refused('stale'));
    expect(await cancelJob(id, { ...late, reason: 'left' }, ines)).toMatchObject(refused('stale'));
    const { version, state } = must(await viewJob(id));
    expect(state).toBe('open');
    must(await cancelJob(id, { key: newKey(), version, reason: 'left' }, ines));
    expect(await reopenJob(id, { key: newKey(), version }, ines)).toMatchObject(refused('stale'));
    expect(must(await viewJob(id)).state).toBe('cancelled');
  });
});

describe('handing over', () => {
  it('asks for a reason where the visit is not proved, and closes the job to readings', async () => {
    const id = await newJob();
    const { version } = must(await viewJob(id));
    expect(await handOver(id, { key: newKey(), version }, ines)).toMatchObject({
      ok: false,
      problem: { code: 'not-proved' },
    });
    const before = must(await viewJob(id));
    must(await handOver(id, { key: newKey(), version, unproved: 'customer in a hurry' }, ines));
    // What was proved is kept with it: page, sheet, list and file say the same.
    const after = must(await viewJob(id));
    expect(after.job.visit?.proof).toEqual(proofOf(before.job));
    expect((await verdictOf(after)).proof).toEqual(after.job.visit?.proof);
    expect((await sheetOfJob(after)).proof).toEqual(after.job.visit?.proof);
    expect(await record(id, entry(gauge(1, 'LF', 230)), ines)).toMatchObject({
      ok: false,
      problem: { code: 'handed-over' },
    });
    expect((await yard()).find((line) => line.id === id)).toMatchObject({ state: 'handed-over' });
  });

  it('of a tire that was found low and only filled has it read again within a week, once', async () => {
    const id = await newJob();
    const { version } = must(await viewJob(id));
    const placard = ['front', 'rear'].map((position) => ({
      position: position as 'front' | 'rear',
      coldKPa: 230,
    }));
    must(await editJob(id, { key: newKey(), version, changes: { placard } }, person('manager')));
    const seen = (['LF', 'RF', 'RR', 'LR'] as const).map((wheel, n) =>
      gauge(n, wheel, wheel === 'RR' ? 160 : 230),
    );
    for (const observation of [...seen, gauge(6, 'RR', 230)])
      must(await record(id, entry(observation), ines));
    const asked = { key: newKey(), version: must(await viewJob(id)).version, unproved: 'no time for a look' };
    const { vehicleId } = must(await handOver(id, asked, ines));
    must(await handOver(id, asked, ines));
    const owed = (await followUpsOf(vehicleId)).map(({ about, wheel, note }) => ({ about, wheel, note }));
    expect(owed).toEqual([
      { about: 'leak', wheel: 'RR', note: 'Found low and filled: nobody looked for a leak.' },
    ]);
  });

  it('puts the sensors heard on file, so that the next visit knows them', async () => {
    const key = newKey();
    const tpms = {
      kind: 'direct' as const,
      positions: ['LF', 'RF', 'RR', 'LR'] as ('LF' | 'RF' | 'RR' | 'LR')[],
    };
    const placardLines = [
      { position: 'front' as const, coldKPa: 230 },
      { position: 'rear' as const, coldKPa: 220 },
    ];
    const vehicle = { label: 'Corriente Brisa', plate: 'FILE 1', tpms };
    const { id } = must(await bookIn({ key, vehicle, placard: placardLines }, ines));
    const seen = [...gauges(1), ...scans(2), registry(3), ...lives(4, undefined, 62), lamp(5, 'off')];
    for (const observation of seen) must(await record(id, { key: newKey(), observation }, ines));
    const view = must(await viewJob(id));
    expect((await verdictOf(view)).proof.proved).toBe(true);
    must(await handOver(id, { key: newKey(), version: view.version }, ines));
    const next = must(
      await bookIn({ key: newKey(), vehicle: { label: 'Corriente Brisa', plate: 'FILE 1' } }, ines),
    );
    expect(must(await viewJob(next.id)).job.sensors).toHaveLength(4);
  });
});

describe('what the parts turned out to be', () => {
  const deadSensor = { part: 'sensor' as const, wheel: 'LR' as const, was: 'sensor-silent' as const };
  const seenOf = async () => (await shopFigures()).experience['sensor-silent'] ?? { had: 0, of: 0 };

  it('is said with the hand-over, counted once, and sharpens only what comes in afterwards', async () => {
    const early = await newJob();
    const id = await newJob();
    const before = await seenOf();
    const { version } = must(await viewJob(id));
    const asked = { key: newKey(), version, unproved: 'sensor on order', parts: [deadSensor] };
    const handed = must(await handOver(id, asked, ines));
    must(await handOver(id, asked, ines));
    expect(handed.job.confirmations).toMatchObject([{ by: ines.name, parts: [deadSensor] }]);
    expect(await count('confirmations', id)).toBe(1);
    expect(await seenOf()).toMatchObject({ had: before.had + 1, of: before.of + 1 });
    const later = must(await viewJob(await newJob())).experience?.['sensor-silent'];
    expect(later).toMatchObject({ had: before.had + 1 });
    expect(must(await viewJob(early)).experience?.['sensor-silent']?.had ?? 0).toBe(before.had);
  });

  it('can be said after the car has left, is put right by saying it anew, and is taken back by nothing', async () => {
    const before = await seenOf();
    const id = await newJob();
    const { version } = must(await viewJob(id));
    must(await handOver(id, { key: newKey(), version, unproved: 'customer in a hurry' }, ines));
    must(await confirm(id, { key: newKey(), parts: [deadSensor] }, ines));
    expect((await seenOf()).had).toBe(before.had + 1);
    must(await confirm(id, { key: newKey(), parts: [{ ...deadSensor, was: 'in-order' }] }, ines));
    expect(await seenOf()).toMatchObject({ had: before.had, of: before.of + 1 });
    must(await confirm(id, { key: newKey(), parts: [] }, ines));
    expect(await seenOf()).toMatchObject({ had: before.had, of: before.of });
    expect(await count('confirmations', id)).toBe(3);
    await expect(database().query('DELETE FROM confirmations')).rejects.toThrow(/append-only/);
  });

  it('is not taken of parts the car does not have, of faults a part cannot have, or from an adviser', async () => {
    const id = await newJob();
    const said = (parts: Parameters<typeof confirm>[1]['parts'], who = ines) =>
      confirm(id, { key: newKey(), parts }, who);
    expect(await said([{ ...deadSensor, wheel: 'SP' }])).toMatchObject(refused('unknown-part'));
    expect(await said([{ ...deadSensor, was: 'tire-leaking' }])).toMatchObject(refused('unknown-part'));
    expect(await said([deadSensor, deadSensor])).toMatchObject(refused('unknown-part'));
    expect(await said([deadSensor], person('adviser'))).toMatchObject(refused('not-allowed'));
    const key = newKey();
    must(await confirm(id, { key, parts: [deadSensor] }, ines));
    const other = await confirm(await newJob(), { key, parts: [deadSensor] }, ines);
    expect(other).toMatchObject(refused('key-in-use'));
    expect(await count('confirmations', id)).toBe(1);
  });
});

/** The file as it was before it was taken in: without the marks that it was. */
const unmarked = (file: object): unknown => {
  const { visit, ...rest } = JSON.parse(
    JSON.stringify(file, (key, value: unknown) => (key === 'byFile' ? undefined : value)),
  ) as { visit?: object };
  return visit && Object.keys(visit).length > 0 ? { ...rest, visit } : rest;
};

describe('a job file', () => {
  it('taken in and exported again is equal, and taken in twice is one job', async () => {
    await fc.assert(
      fc.asyncProperty(exportedJob, async (file) => {
        const job = must(parseJob(file));
        const taken = must(await importJob(job, ines));
        expect(unmarked(must(await exportJob(taken.id)))).toEqual(file);
        expect(must(await importJob(job, ines))).toEqual({ id: taken.id, already: true });
        expect(unmarked(must(await exportJob(taken.id)))).toEqual(file);
      }),
      { numRuns: 25 },
    );
  });

  it('of another program, without keys, is taken in once', async () => {
    const job = must(
      parseJob({
        format: 'hacienda.job/1',
        vehicle: { label: 'Elsewhere', tpms: { kind: 'direct' } },
        observations: [lamp(0, 'off')],
      }),
    );
    const first = must(await importJob(job, ines));
    expect(must(await importJob(job, ines)).id).toBe(first.id);
    expect(await count('observations', first.id)).toBe(1);
  });

  it('proves nothing: a job worked on here, its own file with an invented write and read-back', async () => {
    const { id } = must(
      await bookIn(
        { key: newKey(), vehicle: { label: 'Vela', tpms: direct }, placard: jobWith([]).placard },
        ines,
      ),
    );
    const file = must(await exportJob(id));
    const seen = [...gauges(1), ...scans(2), registry(12), ...lives(20, undefined, 62), lamp(25, 'off')];
    const proving = seen.map((one) => ({ ...one, key: newKey() }));
    const write = registryWrite({
      key: newKey(),
      by: 'Somebody',
      answer: 'yes',
      answeredAt: minute(11),
      readBackAt: minute(12),
      readBack: idsHeld(),
    });
    const forged = must(parseJob({ ...file, observations: proving, carWrites: [write] }));
    expect(proofOf(forged).proved).toBe(true);
    must(await importJob(forged, ines));
    const { job } = must(await viewJob(id));
    expect(job.observations).toHaveLength(proving.length);
    expect(job.observations.every(({ byFile }) => byFile?.by === ines.name)).toBe(true);
    expect(proofOf(job).proved).toBe(false);
    expect(sheetOf(job).doubtful.join()).toContain('came by a file');
    // And for good: written to a file and taken in elsewhere the marks are still there.
    const again = must(await exportJob(id));
    expect(again.carWrites?.every(({ byFile }) => byFile)).toBe(true);
  });

  it('adds nothing to a job that was handed over, of whatever kind', async () => {
    const id = await newJob();
    must(
      await handOver(
        id,
        { key: newKey(), version: must(await viewJob(id)).version, unproved: 'the car is needed' },
        ines,
      ),
    );
    const file = must(await exportJob(id));
    const forged = must(parseJob({ ...file, carWrites: [{ ...registryWrite(), key: newKey() }] }));
    expect(await importJob(forged, ines)).toMatchObject({ problem: { code: 'handed-over' } });
    expect(must(await exportJob(id))).toEqual(file);
  });
});
