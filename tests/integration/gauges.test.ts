import { v7 as newKey } from 'uuid';
import { describe, expect, it } from 'vitest';
import { asJudged, checkPlanKPa, gaugeWarning, type CheckPoint } from '../../src/core/tire/gauge';
import { allOf } from '../../src/core/job';
import { usualSettings } from '../../src/core/records/shop';
import { judgedJob } from '../../src/contract/views';
import { database } from '../../src/data/database';
import * as asReadMigration from '../../src/data/migrations/0004-as-read';
import { addGauge, recordCheck, register, setRetired } from '../../src/services/gauges';
import { addNote, bookIn, editJob, exportJob, handOver, record, viewJob } from '../../src/services/jobs';
import { lookUp } from '../../src/services/vehicles';
import { addPerson, chooseUnits, listPeople } from '../../src/services/people';
import { setShop, shopSettings } from '../../src/services/shop';
import { person } from '../support/people';

const ines = person();
const boss = person('manager');
const points = (errorKPa: number): CheckPoint[] =>
  (['up', 'down'] as const).flatMap((way) =>
    checkPlanKPa.map((kPa) => ({ way, referenceKPa: kPa, readKPa: kPa + errorKPa })),
  );
const check = (errorKPa: number, key = newKey()) => ({
  key,
  reference: 'dead-weight tester',
  referenceUncertaintyKPa: 0.5,
  points: points(errorKPa),
});
async function newGauge(): Promise<string> {
  const key = newKey();
  await addGauge({ key, name: `Gauge ${key}`, kind: 'digital', resolutionKPa: 1 }, ines);
  return key;
}
const daysAgo = (days: number) => new Date(Date.now() - days * 86_400_000);
const car = () => ({
  label: 'Corriente Vela',
  plate: newKey().slice(-10),
  tpms: { kind: 'direct' as const },
});
const placard = [
  { position: 'front' as const, coldKPa: 230 },
  { position: 'rear' as const, coldKPa: 220 },
];
async function booked(more: object = {}): Promise<string> {
  const made = await bookIn({ key: newKey(), vehicle: car(), placard, ...more }, ines);
  if (!made.ok) throw new Error(made.problem.message);
  return made.value.id;
}
const gaugeReading = (wheel: 'LF' | 'RF', kPa: number, more: object = {}) => ({
  kind: 'gauge' as const,
  at: new Date().toISOString(),
  wheel,
  kPa,
  tire: 'cold' as const,
  ...more,
});

describe('the register of gauges', () => {
  it('keeps a gauge once, however often it is sent, and no two of one name', async () => {
    const key = newKey();
    const asked = { key, name: `Blue ${key}`, kind: 'digital' as const, resolutionKPa: 0.5 };
    await Promise.all([addGauge(asked, ines), addGauge(asked, ines), addGauge(asked, ines)]);
    await addGauge(asked, ines);
    expect((await register()).filter(({ id }) => id === key)).toHaveLength(1);
    const same = await addGauge({ ...asked, key: newKey(), name: asked.name.toUpperCase() }, ines);
    expect(same).toMatchObject({ ok: false, problem: { code: 'name-taken' } });
  });

  it('keeps a check once, append-only, and knows which gauge it is of', async () => {
    const [one, other] = [await newGauge(), await newGauge()];
    const made = check(1.5);
    const first = await recordCheck(one, made, ines);
    expect(await recordCheck(one, made, ines)).toEqual(first);
    expect(first.ok && first.value.checks).toHaveLength(1);
    expect(await recordCheck(other, made, ines)).toMatchObject({
      ok: false,
      problem: { code: 'key-in-use' },
    });
    await expect(database().query(`DELETE FROM gauge_checks WHERE key = '${made.key}'`)).rejects.toThrow(
      /append-only/,
    );
  });

  it('refuses a check at one pressure, an unknown gauge, and somebody who does not read gauges', async () => {
    const one = await newGauge();
    const flat = points(0).map((point) => ({ ...point, referenceKPa: 200 }));
    const code = async (asked: Promise<unknown>) =>
      ((await asked) as { problem?: { code: string } }).problem?.code;
    expect(await code(recordCheck(one, { ...check(0), points: flat }, ines))).toBe('check-one-point');
    expect(await code(recordCheck(newKey(), check(0), ines))).toBe('unknown-gauge');
    expect(await code(recordCheck(one, check(0), person('adviser')))).toBe('not-allowed');
    expect(await code(setRetired(newKey(), true, ines))).toBe('unknown-gauge');
  });

  it('takes a gauge out of use and back, unless its name was given away meanwhile', async () => {
    const key = newKey();
    const asked = { key, name: `Dial ${key}`, kind: 'dial' as const, resolutionKPa: 5 };
    await addGauge(asked, ines);
    await setRetired(key, true, ines);
    expect((await register()).find(({ id }) => id === key)?.retired).toBe(true);
    await addGauge({ ...asked, key: newKey() }, ines);
    expect(await setRetired(key, false, ines)).toMatchObject({ ok: false, problem: { code: 'name-taken' } });
  });

  it('flags the readings of a gauge that a later check finds off, on open jobs, and trusts them no more', async () => {
    const gauge = await newGauge();
    await recordCheck(gauge, check(1), ines, daysAgo(20));
    const job = await booked();
    await record(job, { key: newKey(), observation: gaugeReading('LF', 150, { gauge }) }, ines);
    const seen = async () => {
      const view = await viewJob(job);
      if (!view.ok) throw new Error(view.problem.message);
      const [reading] = allOf(judgedJob(view.value), 'gauge');
      return { warning: reading && gaugeWarning(reading.seen), trusted: reading?.seen.trusted };
    };
    expect(await seen()).toEqual({ warning: undefined, trusted: undefined });
    await recordCheck(gauge, check(12), ines);
    expect(await seen()).toEqual({ warning: 'gauge out of tolerance', trusted: false });
    // What was recorded stays as it was recorded.
    const file = await exportJob(job);
    expect(file.ok && allOf(file.value, 'gauge')[0]?.seen.trusted).toBeUndefined();
  });
});

describe('a reading', () => {
  it('is kept as it was read, and what a later check says of its gauge is worked out', async () => {
    const gauge = await newGauge();
    const job = await booked();
    const judged = async () => {
      const view = await viewJob(job);
      if (!view.ok) throw new Error(view.problem.message);
      return allOf(judgedJob(view.value), 'gauge')[0]?.seen;
    };
    await record(job, { key: newKey(), observation: gaugeReading('LF', 233, { gauge }) }, ines);
    // Nobody knows this gauge yet.
    expect(await judged()).toMatchObject({ kPa: 233, trusted: false, standing: 'never-checked' });
    await recordCheck(gauge, check(3), ines);
    const after = await judged();
    expect(after).toMatchObject({ readKPa: 233 });
    expect(after?.kPa).toBeCloseTo(230, 9);
    expect(after?.trusted).toBeUndefined();
    const file = await exportJob(job);
    if (!file.ok) throw new Error(file.problem.message);
    // As read, with the gauge it was read with: the file can be judged by itself.
    expect(allOf(file.value, 'gauge')[0]?.seen).toMatchObject({ kPa: 233, gauge });
    expect(allOf(file.value, 'gauge')[0]?.seen).not.toHaveProperty('trusted');
    expect(allOf(asJudged(file.value, []), 'gauge')[0]?.seen.kPa).toBeCloseTo(230, 9);
  });

  it('that was stored with what followed from it is brought back to what was read', async () => {
    const gauge = await newGauge();
    const job = await booked();
    const bodies = [
      gaugeReading('LF', 230, { gauge, readKPa: 233, plusMinusKPa: 3, trusted: true, typed: '233' }),
      gaugeReading('LF', 221, { trusted: true }),
      gaugeReading('RF', 222, { trusted: false, note: 'kept' }),
    ];
    for (const body of bodies) await record(job, { key: newKey(), observation: body }, ines);
    await asReadMigration.up(database().getQueryInterface());
    const file = await exportJob(job);
    if (!file.ok) throw new Error(file.problem.message);
    const [first, second, third] = allOf(file.value, 'gauge').map(({ seen }) => seen);
    expect(first).toMatchObject({ kPa: 233, gauge, typed: '233' });
    for (const derived of ['readKPa', 'plusMinusKPa', 'trusted']) expect(first).not.toHaveProperty(derived);
    expect(second).not.toHaveProperty('trusted');
    expect(third).toMatchObject({ kPa: 222, trusted: false, note: 'kept' });
    await expect(database().query(`DELETE FROM observations WHERE job_id = '${job}'`)).rejects.toThrow(
      /append-only/,
    );
  });
});

describe('the shop', () => {
  it('says the units of everyone who chose none, and a choice of their own wins', async () => {
    const name = `Somebody ${newKey()}`;
    const added = await addPerson({ name, role: 'technician', passphrase: 'a passphrase of words' });
    if (!added.ok) throw new Error(added.problem.message);
    const psi = { ...usualSettings.units, pressure: 'psi' as const, height: 'ft' as const };
    const units = async () => (await listPeople()).find((who) => who.name === name)?.units;
    await setShop({ ...usualSettings, units: psi }, boss);
    expect(await units()).toMatchObject(psi);
    await chooseUnits(added.value, { ...usualSettings.units, pressure: 'bar' });
    expect((await units())?.pressure).toBe('bar');
    await chooseUnits(added.value, null);
    expect((await units())?.pressure).toBe('psi');
    await setShop(usualSettings, boss);
  });

  it('gives a job its height, its rule and its school; only a manager sets them', async () => {
    await setShop({ ...usualSettings, altitudeM: 1640, regulation: 'UN', fillPolicy: 'morning' }, boss);
    const view = await viewJob(await booked());
    expect(view.ok && view.value.job.climate).toEqual({ altitudeM: 1640, fillPolicy: 'morning' });
    expect(view.ok && view.value.job.vehicle.tpms.regulation).toBe('UN');
    expect(await setShop(usualSettings, ines)).toMatchObject({ ok: false, problem: { code: 'not-allowed' } });
    await setShop(usualSettings, boss);
    expect(await shopSettings()).toEqual(usualSettings);
  });
});

describe('what was worked out on the bench', () => {
  it('is taken into a job once, and not into a closed one', async () => {
    const job = await booked();
    const note = {
      key: newKey(),
      text: '230 kPa at 20 °C is 213 kPa at 5 °C.',
      link: '/bench?tool=pressure',
    };
    await addNote(job, note, ines);
    await addNote(job, note, ines);
    const view = await viewJob(job);
    if (!view.ok) throw new Error(view.problem.message);
    expect(view.value.job.visit).toMatchObject({
      bench: [{ text: note.text, link: note.link, by: ines.name }],
    });
    await handOver(job, { key: newKey(), version: view.value.version, unproved: 'a test' }, ines);
    const late = await addNote(job, { ...note, key: newKey() }, ines);
    expect(late).toMatchObject({ ok: false, problem: { code: 'handed-over' } });
  });
});

describe('the readings of earlier visits', () => {
  const visit = async (vehicle: ReturnType<typeof car>, kPa: number, service = 'none') => {
    // The car left from its last visit.
    const open = (await lookUp({ plate: vehicle.plate }))?.openJob;
    const last = open && (await viewJob(open.id));
    if (last?.ok)
      await handOver(
        last.value.id,
        { key: newKey(), version: last.value.version, unproved: 'a reading was all there was to it' },
        ines,
      );
    const made = await bookIn(
      {
        key: newKey(),
        vehicle,
        placard,
        service: { kind: service as 'none' },
        climate: { nowC: 7 },
        observations: [{ key: newKey(), observation: gaugeReading('LF', kPa) }],
      },
      ines,
    );
    if (!made.ok) throw new Error(made.problem.message);
    const view = await viewJob(made.value.id);
    if (!view.ok) throw new Error(view.problem.message);
    return view.value;
  };

  it('come with the car, oldest first, each with the temperature of its day', async () => {
    const vehicle = car();
    await visit(vehicle, 231);
    await visit(vehicle, 222);
    const third = await visit(vehicle, 214);
    expect(third.job.history?.map(({ kPa, tireC }) => [kPa, tireC])).toEqual([
      [231, 7],
      [222, 7],
    ]);
  });

  it('before the wheels changed place stay behind', async () => {
    const vehicle = car();
    await visit(vehicle, 231);
    await visit(vehicle, 222, 'rotation');
    const third = await visit(vehicle, 214);
    expect(third.job.history?.map(({ kPa }) => kPa)).toEqual([222]);
  });

  it('tires and placard of a car are there next time, and a repair stays with its visit', async () => {
    const vehicle = car();
    const first = await visit(vehicle, 231);
    const fitted = [{ position: 'front' as const, size: '205/55R16 91V', maxKPa: 350 }];
    const repairs = [{ wheel: 'LF' as const, at: new Date().toISOString() }];
    const edited = await editJob(
      first.id,
      { key: newKey(), version: first.version, changes: { fitted, repairs, loadCase: 'full' } },
      ines,
    );
    expect(edited.ok && edited.value.job).toMatchObject({ fitted, repairs, loadCase: 'full' });
    const next = await visit(vehicle, 230);
    expect(next.job.fitted).toEqual(fitted);
    expect(next.job.repairs).toBeUndefined();
  });
});
