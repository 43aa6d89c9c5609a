import { v7 as newKey } from 'uuid';
import { beforeAll, describe, expect, it } from 'vitest';
import { distanceOf, type Found } from '../../src/core/records/search';
import { slipBetween } from '../../src/core/names/sensor-id';
import { QueryTypes } from 'sequelize';
import { database } from '../../src/data/database';
import { bookIn, editJob, record, viewJob } from '../../src/services/jobs';
import { find, listJobs } from '../../src/services/search';
import { must } from '../support/must';
import { person } from '../support/people';

const ines = person();
const book = async (vehicle: { label: string; plate?: string; vin?: string }, more: object = {}) =>
  must(await bookIn({ key: newKey(), vehicle: { ...vehicle, tpms: { kind: 'direct' } }, ...more }, ines)).id;
const hear = (job: string, ...ids: string[]) =>
  record(
    job,
    {
      key: newKey(),
      observation: {
        kind: 'activation',
        at: new Date().toISOString(),
        wheel: 'LF',
        trigger: 'pulsed',
        replies: ids.map((id) => ({ id })),
      },
    },
    ines,
  );
const vehicles = (found: Found[]) => found.flatMap((one) => (one.kind === 'vehicle' ? [one] : []));
const sensors = (found: Found[]) => found.flatMap((one) => (one.kind === 'sensor' ? [one] : []));
const plates = async (typed: string) => vehicles(await find(typed)).map(({ plate }) => plate);

/** Seeded, so that a failure can be looked at again. */
const ids = Array.from({ length: 300 }, (_, n) =>
  ((n * 2_654_435_761 + 0x5eed) >>> 0).toString(16).toUpperCase().padStart(8, '0'),
);
let job: string;

beforeAll(async () => {
  job = await book(
    { label: 'Ostrel Menta, green', plate: 'QZV 7731', vin: '1HGBH41JXMN109186' },
    { customer: 'Rosalind Quillfeather' },
  );
  await book({ label: 'Corriente Vela', plate: 'QZV 9004' });
  for (let at = 0; at < ids.length; at += 30) await hear(job, ...ids.slice(at, at + 30));
});

describe('finding again', () => {
  it('goes by a plate from its beginning, in the middle, however it is written', async () => {
    expect(await plates('qz')).toEqual(expect.arrayContaining(['QZV 7731', 'QZV 9004']));
    expect(await plates('qzv-77')).toEqual(['QZV 7731']);
    expect(await plates('V773')).toEqual(['QZV 7731']);
  });

  it('goes by a VIN whole, and by its end', async () => {
    expect(await plates('1HGBH41JXMN109186')).toEqual(['QZV 7731']);
    expect(await plates('109186')).toContain('QZV 7731');
  });

  it('goes by words of the customer’s name or of the vehicle, and by a name that is written nearly so', async () => {
    expect(await plates('quill')).toContain('QZV 7731');
    expect(await plates('rosalind quillf')).toEqual(['QZV 7731']);
    expect(await plates('menta green')).toContain('QZV 7731');
    expect(await plates('Quilfether')).toContain('QZV 7731');
    expect(await plates('feather')).not.toContain('QZV 9004');
  });

  it('takes % and _ for what they are', async () => {
    expect(await find('%%%')).toEqual([]);
    expect(await find('___')).toEqual([]);
  });

  it('goes by a job’s number', async () => {
    const { number } = must(await viewJob(job));
    expect(await find(`job ${number}`)).toContainEqual(expect.objectContaining({ kind: 'job', id: job }));
  });

  it('of an ID tells the sensor and every vehicle it was met at', async () => {
    const other = await book({ label: 'Corriente Brisa', plate: 'QZV 5550' });
    await hear(other, ids[7] ?? '');
    const [nearest] = sensors(await find((ids[7] ?? '').toLowerCase()));
    expect(nearest).toMatchObject({ sensorId: ids[7], slip: false });
    expect(nearest?.vehicles.map(({ plate }) => plate).sort()).toEqual(['QZV 5550', 'QZV 7731']);
  });

  it('of an ID typed with a slip tells the same as a brute force over all IDs there are', async () => {
    const all = (
      await database().query<{ sensor_id: string }>('SELECT sensor_id FROM sensor_ids', {
        type: QueryTypes.SELECT,
      })
    ).map(({ sensor_id }) => sensor_id);
    const parts = (id: string) =>
      Array.from({ length: id.length }, (_, from) =>
        Array.from({ length: id.length - from }, (__, length) => id.slice(from, from + length + 1)),
      ).flat();
    for (let n = 0; n < 40; n += 1) {
      const id = ids[n * 7] ?? '';
      const at = (n % 6) + 1;
      const typed = [
        `${id.slice(0, at)}${id[at] === 'F' ? '0' : 'F'}${id.slice(at + 1)}`,
        `${id.slice(0, at)}${id.slice(at + 1)}`,
        `${id.slice(0, at)}${id[at - 1]}${id.slice(at)}`,
        `${id.slice(0, at)}${id[at + 1]}${id[at]}${id.slice(at + 2)}`,
        id.slice(1, 7),
      ][n % 5];
      if (typed === undefined) throw new Error('five ways');
      const brute = all.filter(
        (one) => one.includes(typed) || parts(one).some((part) => slipBetween(part, typed) !== undefined),
      );
      const found = sensors(await find(typed)).map(({ sensorId }) => sensorId);
      const nearest = [...brute].sort(
        (a, b) => distanceOf(a, typed) - distanceOf(b, typed) || a.localeCompare(b),
      );
      expect(found, typed).toEqual(nearest.slice(0, 9));
      expect(found).toContain(id);
    }
  });

  it('finds a car under its customer’s corrected name', async () => {
    const { version } = must(await viewJob(job));
    must(await editJob(job, { key: newKey(), version, changes: { customer: 'Rosamund Inkwell' } }, ines));
    expect(await plates('inkwell')).toEqual(['QZV 7731']);
  });
});

describe('a list of jobs', () => {
  it('is narrowed by day, person and state, the newest first', async () => {
    const { number } = must(await viewJob(job));
    const mine = await listJobs({ by: ines.name, state: 'open' });
    expect(mine.jobs.map((one) => one.number)).toContain(number);
    expect(mine.jobs.map(({ openedAt }) => openedAt)).toEqual(
      mine.jobs
        .map(({ openedAt }) => openedAt)
        .sort()
        .reverse(),
    );
    const tomorrow = new Date(Date.now() + 86_400_000).toISOString();
    expect((await listJobs({ from: tomorrow })).jobs).toEqual([]);
    expect((await listJobs({ by: 'nobody of this name' })).jobs).toEqual([]);
    expect((await listJobs({ unproved: '1', state: 'open' })).jobs).toEqual([]);
  });

  it('goes on where it ended, leaving none out', async () => {
    for (let n = 0; n < 55; n += 1) await book({ label: `Many ${n}` });
    const seen: number[] = [];
    let page = await listJobs({ by: ines.name });
    for (;;) {
      seen.push(...page.jobs.map(({ number }) => number));
      const last = page.jobs.at(-1);
      if (!page.more || !last) break;
      page = await listJobs({ by: ines.name, beforeAt: last.openedAt, beforeId: last.id });
    }
    expect(new Set(seen).size).toBe(seen.length);
    expect(seen.length).toBeGreaterThanOrEqual(58);
  });
});
