import { v7 as newKey } from 'uuid';
import { describe, expect, it } from 'vitest';
import { newCode } from '../../src/core/names/label';
import type { SetWheel } from '../../src/core/records/wheel-set';
import {
  addFollowUp,
  dueFollowUps,
  endFollowUp,
  followUpsOf,
  suggestFollowUps,
} from '../../src/services/follow-ups';
import { bookIn, handOver, record, viewJob } from '../../src/services/jobs';
import { codesFor, followLabel } from '../../src/services/labels';
import { mergesOf, mergeVehicles, undoMerge } from '../../src/services/merges';
import { metElsewhere, pastOfSensor, pastOfVehicle } from '../../src/services/past';
import { find } from '../../src/services/search';
import { saveSet, swapSets, wheelSetsOf, type EnteredSet } from '../../src/services/wheel-sets';
import { must } from '../support/must';
import { person } from '../support/people';

const ines = person();
const boss = person('manager');
const wheel = (at: SetWheel['wheel'], sensorId: string | null, more: Partial<SetWheel> = {}): SetWheel => ({
  wheel: at,
  sensorId,
  newOn: null,
  treadMm: null,
  dot: null,
  size: null,
  ...more,
});
const winter = (more: Partial<EnteredSet> = {}): EnteredSet => ({
  id: newKey(),
  version: 0,
  label: 'winter',
  season: 'winter',
  place: 'shop',
  rack: `R ${newKey().slice(-6)}`,
  wheels: [
    wheel('LF', '6C00A1', { treadMm: 7, dot: '3424', size: '205/60R16' }),
    wheel('RF', '6C00A2'),
    wheel('RR', '6C00A3'),
    wheel('LR', null),
  ],
  ...more,
});

/** A car with its job. */
async function car(plate = newKey().slice(-9)) {
  const tpms = {
    kind: 'direct' as const,
    positions: ['LF' as const, 'RF' as const, 'RR' as const, 'LR' as const],
  };
  const { id } = must(await bookIn({ key: newKey(), vehicle: { label: 'Ostrel Menta', plate, tpms } }, ines));
  const [found] = (await find(plate)).flatMap((one) => (one.kind === 'vehicle' ? [one] : []));
  if (!found) throw new Error('the car was not found again');
  return { job: id, vehicle: found.id };
}
const hear = (job: string, at: 'LF' | 'RF' | 'RR' | 'LR', id: string) =>
  record(
    job,
    {
      key: newKey(),
      observation: {
        kind: 'activation',
        at: new Date().toISOString(),
        wheel: at,
        trigger: 'pulsed',
        replies: [{ id, kPa: 230 }],
      },
    },
    ines,
  );
async function leave(job: string) {
  const { version } = must(await viewJob(job));
  must(await handOver(job, { key: newKey(), version, unproved: 'a test' }, ines));
}

describe('a wheel set', () => {
  it('is put on file, changed by one at a time, and lies in a place nobody else has', async () => {
    const { vehicle } = await car();
    const set = winter();
    expect(must(await saveSet(vehicle, set))).toMatchObject([
      { label: 'winter', rack: set.rack, version: 1 },
    ]);
    // Sent twice it is there once.
    expect(must(await saveSet(vehicle, set))).toHaveLength(1);
    expect(await saveSet(vehicle, { ...set, version: 7 })).toMatchObject({ problem: { code: 'stale' } });
    expect(await saveSet(vehicle, winter({ rack: 'elsewhere' }))).toMatchObject({
      problem: { code: 'name-taken' },
    });
    const other = await car();
    expect(await saveSet(other.vehicle, winter({ rack: set.rack }))).toMatchObject({
      problem: { code: 'rack-taken' },
    });
    expect(await saveSet(other.vehicle, { ...set, version: 1 })).toMatchObject({
      problem: { code: 'unknown-set' },
    });
    expect(await saveSet(newKey(), winter())).toMatchObject({ problem: { code: 'unknown-vehicle' } });
  });

  it('with faults is refused, each named where it stands', async () => {
    const { vehicle } = await car();
    const wheels = [wheel('LF', '6C00A1', { dot: '9921' }), wheel('LF', '6c-00-a1')];
    const refused = await saveSet(vehicle, winter({ wheels }));
    expect(refused).toMatchObject({ problem: { code: 'invalid-input' } });
    expect(refused.ok ? [] : refused.problem.issues?.map(({ path }) => path)).toEqual([
      'wheels.0.dot',
      'wheels.0.sensorId',
      'wheels.1.sensorId',
      'wheels.1.wheel',
    ]);
    expect(await wheelSetsOf(vehicle)).toEqual([]);
  });

  it('is found by its IDs though nobody heard them', async () => {
    const { vehicle } = await car();
    must(await saveSet(vehicle, winter({ wheels: [wheel('LF', '7E57AB1E')] })));
    expect(await find('7e57ab')).toContainEqual(
      expect.objectContaining({ kind: 'sensor', sensorId: '7E57AB1E' }),
    );
    expect((await pastOfSensor('7e57ab1e')).onFile).toMatchObject([
      { wheel: 'LF', set: { label: 'winter' } },
    ]);
  });

  it('goes onto the car in one step: the old one to its place, the job knows the new sensors', async () => {
    const { job, vehicle } = await car();
    for (const [at, id] of [
      ['LF', '5A0001'],
      ['RF', '5A0002'],
      ['RR', '5A0003'],
      ['LR', '5A0004'],
    ] as const)
      await hear(job, at, id);
    await leave(job);
    expect(await wheelSetsOf(vehicle)).toMatchObject([{ label: 'on the car', place: 'car' }]);
    const set = winter();
    must(await saveSet(vehicle, set));
    const { plate } = must(await pastOfVehicle(vehicle)).listed;
    const next = must(await bookIn({ key: newKey(), vehicle: { label: 'Ostrel Menta', plate } }, ines)).id;
    const { version, job: before } = must(await viewJob(next));
    expect(before.sensors?.map(({ id }) => id)).toEqual(['5A0001', '5A0002', '5A0003', '5A0004']);
    expect(before.otherSets).toEqual([{ label: 'winter', ids: ['6C00A1', '6C00A2', '6C00A3'] }]);
    const key = newKey();
    const swap = { key, version, set: set.id, off: { place: 'shop' as const, rack: set.rack } };
    const after = must(await swapSets(next, swap, ines));
    expect(after.job).toMatchObject({
      service: { kind: 'wheels-swapped', hoursAgo: 0 },
      fitted: [{ position: 'front', size: '205/60R16' }],
      otherSets: [{ label: 'on the car' }],
    });
    expect(after.job.sensors?.map(({ id }) => id)).toEqual(['6C00A1', '6C00A2', '6C00A3']);
    expect(await wheelSetsOf(vehicle)).toMatchObject([
      { label: 'on the car', place: 'shop', rack: set.rack },
      { label: 'winter', place: 'car', rack: null },
    ]);
    // A double click, and somebody who saw the job as it was.
    expect(must(await swapSets(next, swap, ines)).version).toBe(after.version);
    expect(await swapSets(next, { ...swap, key: newKey() }, ines)).toMatchObject({
      problem: { code: 'stale' },
    });
    expect(await swapSets(next, { ...swap, key: newKey(), version: after.version }, ines)).toMatchObject({
      ok: false,
    });
  });

  it('is made ready as a job before the car comes; once it is on, nothing is planned any more', async () => {
    const { job, vehicle } = await car('PLAN 1');
    const set = winter();
    must(await saveSet(vehicle, set));
    const now = must(await viewJob(job));
    must(await handOver(job, { key: newKey(), version: now.version, unproved: 'other work' }, ines));

    const booking = { key: newKey(), vehicle: { label: 'Ostrel Menta', plate: 'PLAN 1' } };
    const foreign = await bookIn({ ...booking, plannedSet: newKey() }, ines);
    expect(foreign).toMatchObject({ ok: false, problem: { code: 'unknown-set' } });
    const { id } = must(await bookIn({ ...booking, plannedSet: set.id }, ines));
    const view = must(await viewJob(id));
    expect(view.job.visit?.plannedSet).toEqual({ id: set.id, label: 'winter', rack: set.rack });
    const off = { place: 'customer' as const, rack: null };
    must(await swapSets(id, { key: newKey(), version: view.version, set: set.id, off }, ines));
    const after = must(await viewJob(id)).job;
    expect(after.visit?.plannedSet).toBeUndefined();
    expect(after.sensors?.map((sensor) => sensor.id)).toEqual(['6C00A1', '6C00A2', '6C00A3']);
  });

  it('that is heard on the car is on it, whatever the records said', async () => {
    const { job, vehicle } = await car();
    for (const at of ['LF', 'RF', 'RR', 'LR'] as const) await hear(job, at, `5B000${at === 'LF' ? 1 : at}`);
    await leave(job);
    must(await saveSet(vehicle, winter()));
    const { plate } = must(await pastOfVehicle(vehicle)).listed;
    const next = must(await bookIn({ key: newKey(), vehicle: { label: 'Ostrel Menta', plate } }, ines)).id;
    for (const [at, id] of [
      ['LF', '6C00A1'],
      ['RF', '6C00A2'],
      ['RR', '6C00A3'],
    ] as const)
      await hear(next, at, id);
    await leave(next);
    expect(await wheelSetsOf(vehicle)).toMatchObject([
      { label: 'on the car', place: 'customer' },
      { label: 'winter', place: 'car', wheels: [{ treadMm: 7, dot: '3424' }, {}, {}, {}] },
    ]);
  });
});

describe('a label', () => {
  it('is the same each time, leads to what it is on, and one that is torn or foreign is told', async () => {
    const { vehicle } = await car();
    const set = winter();
    must(await saveSet(vehicle, set));
    const targets = [
      { of: 'key' as const, vehicleId: vehicle },
      { of: 'set' as const, vehicleId: vehicle, wheelSetId: set.id },
      { of: 'wheel' as const, vehicleId: vehicle, wheelSetId: set.id, wheel: 'LF' as const },
      { of: 'sensor' as const, sensorId: '6c00-a1' },
    ];
    const [codes, again] = await Promise.all([codesFor(targets, ines), codesFor(targets, boss)]);
    expect(must(codes)).toEqual(must(again));
    expect(new Set(must(codes)).size).toBe(4);
    const paths = await Promise.all(must(codes).map(async (code) => must(await followLabel(code)).path));
    expect(paths).toEqual([
      `/vehicles/${vehicle}`,
      `/vehicles/${vehicle}#set-${set.id}`,
      `/vehicles/${vehicle}#set-${set.id}`,
      '/sensors/6C00A1',
    ]);
    const foreign = newCode((below) => below - 1);
    expect(await followLabel(foreign)).toMatchObject({ problem: { code: 'unknown-label' } });
    expect(await followLabel((must(codes)[0] ?? '').slice(0, 5))).toMatchObject({
      problem: { code: 'torn-label' },
    });
    for (const sensorId of [' - ', '0DD5EE4'])
      expect(await codesFor([{ of: 'sensor', sensorId }], ines)).toMatchObject({
        problem: { code: 'not-found' },
      });
    expect(await codesFor([{ of: 'key', vehicleId: newKey() }], ines)).toMatchObject({
      problem: { code: 'unknown-vehicle' },
    });
  });
});

describe('a follow-up', () => {
  it('is due on its day, done once, and dropped with a word', async () => {
    const { job, vehicle } = await car();
    const key = newKey();
    const asked = {
      key,
      vehicle,
      job,
      about: 'leak' as const,
      wheel: 'RF' as const,
      note: '',
      dueOn: '2024-02-01',
    };
    must(await addFollowUp(asked, ines));
    must(await addFollowUp(asked, ines));
    const elsewhere = (await car()).job;
    for (const other of [newKey(), elsewhere])
      expect(await addFollowUp({ ...asked, key: newKey(), job: other }, ines)).toMatchObject({
        problem: { code: 'unknown-job' },
      });
    const mine = (await dueFollowUps()).filter((one) => one.vehicleId === vehicle);
    expect(mine).toMatchObject([{ key, about: 'leak', wheel: 'RF', dueOn: '2024-02-01', by: ines.name }]);
    must(await endFollowUp(key, { outcome: 'dropped', word: 'the car was sold' }, boss));
    must(await endFollowUp(key, { outcome: 'done', word: '' }, ines));
    expect((await dueFollowUps()).filter((one) => one.vehicleId === vehicle)).toEqual([]);
    expect(await followUpsOf(vehicle)).toMatchObject([
      { ended: { outcome: 'dropped', word: 'the car was sold', by: boss.name } },
    ]);
    expect(await endFollowUp(newKey(), { outcome: 'done', word: '' }, ines)).toMatchObject({ ok: false });
    expect(await suggestFollowUps(newKey())).toMatchObject({ problem: { code: 'unknown-job' } });
    expect(must(await suggestFollowUps(job))).toEqual([]);
  });
});

describe('two records of one car', () => {
  it('are put together, and apart again as they were', async () => {
    const [one, other] = [await car(), await car()];
    await leave(other.job);
    must(await saveSet(one.vehicle, winter()));
    must(await saveSet(other.vehicle, winter({ rack: 'Q 1' })));
    const before = must(await pastOfVehicle(other.vehicle)).listed;
    const key = newKey();
    const merge = { key, gone: other.vehicle };
    expect(await mergeVehicles(one.vehicle, merge, ines)).toMatchObject({ problem: { code: 'not-allowed' } });
    must(await mergeVehicles(one.vehicle, merge, boss));
    must(await mergeVehicles(one.vehicle, merge, boss));
    const together = must(await pastOfVehicle(one.vehicle));
    expect(together.visits).toHaveLength(2);
    expect(together.sets.map(({ label }) => label)).toEqual(['winter', 'winter 2']);
    expect((await find(before.plate)).filter(({ kind }) => kind === 'vehicle')).toEqual([]);
    expect(await mergesOf(one.vehicle)).toMatchObject([{ key, gone: other.vehicle }]);
    must(await undoMerge(key, boss));
    must(await undoMerge(key, boss));
    expect(must(await pastOfVehicle(one.vehicle)).visits).toHaveLength(1);
    expect(must(await pastOfVehicle(other.vehicle)).listed).toEqual(before);
    expect(must(await pastOfVehicle(other.vehicle)).sets).toHaveLength(1);
  });

  it('are not put together while both have a job open, nor with themselves', async () => {
    const [one, other] = [await car(), await car()];
    const merge = (gone: string) => mergeVehicles(one.vehicle, { key: newKey(), gone }, boss);
    expect(await merge(other.vehicle)).toMatchObject({ problem: { code: 'already-open' } });
    expect(await merge(one.vehicle)).toMatchObject({ problem: { code: 'invalid-input' } });
    expect(await merge(newKey())).toMatchObject({ problem: { code: 'unknown-vehicle' } });
  });
});

describe('one ID at two vehicles', () => {
  it('is seen at once on the job of the second, and explained', async () => {
    const [one, other] = [await car(), await car()];
    await hear(one.job, 'LF', 'ABCD0001');
    expect(must(await metElsewhere(one.job))).toEqual([]);
    await hear(other.job, 'RR', 'abcd 0001');
    expect(must(await metElsewhere(other.job))).toMatchObject([
      { sensorId: 'ABCD0001', vehicle: { id: one.vehicle }, why: { why: 'sensor-moved', to: other.vehicle } },
    ]);
    const past = await pastOfSensor('ABCD-0001');
    expect(past.vehicles.map(({ id }) => id)).toEqual([one.vehicle, other.vehicle]);
    expect(past.meetings.map(({ how }) => how)).toEqual(['heard', 'heard']);
    expect(await metElsewhere(newKey())).toMatchObject({ problem: { code: 'unknown-job' } });
  });
});
