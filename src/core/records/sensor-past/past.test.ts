import { describe, expect, it } from 'vitest';
import { heard, ids, jobWith } from '../../../../tests/support/car';
import type { CarWrite, Job, Observation } from '../../job';
import { metric } from '../../measure/units';
import type { Visit } from '../vehicle';
import { meetingsOf, whyShared } from '.';
import { meetingWords, sharedWords } from './words';

let number = 0;
const day = (n: number) => new Date(Date.parse('2024-03-01T09:00:00Z') + n * 86_400_000).toISOString();
/** A visit of a vehicle on a day. */
const visit = (
  vehicleId: string,
  n: number,
  observations: Observation[],
  more: Partial<Job> = {},
): Visit => ({
  id: `job ${(number += 1)}`,
  number,
  state: 'handed-over',
  vehicleId,
  openedAt: day(n),
  version: 1,
  job: jobWith(
    observations.map((seen) => ({ ...seen, at: day(n) })),
    more,
  ),
});
const reply = (id: string) => ({ id, kPa: 230 });
const holds = (entries: Record<string, string>): Observation => ({
  kind: 'registry',
  at: day(0),
  entries: Object.entries(entries).map(([wheel, id]) => ({ wheel: wheel as 'LF', id })),
});
const clone = (id: string, n: number): CarWrite => ({
  kind: 'sensor',
  key: 'w',
  askedAt: day(n),
  mode: 'clone',
  wheel: 'LF',
  part: 'uni-1',
  asked: { id },
  readBack: { id },
});
const why = (visits: Visit[], id = ids.LF) => whyShared(id, visits, 'A', 'B')?.why;

describe('the life of a sensor', () => {
  it('is told from box to bin, over vehicles, however its ID was written', () => {
    const visits = [
      visit('B', 400, [heard(0, 'RR', reply('4b07 c2d1'))]),
      visit('A', 0, [holds({ LF: ids.LF })], { carWrites: [clone(ids.LF, 0)] }),
      visit('A', 30, [heard(0, 'LF'), heard(0, 'RF')]),
    ];
    const met = meetingsOf('4B07-C2D1', visits);
    expect(met.map(({ how, vehicleId }) => `${how} ${vehicleId}`)).toEqual([
      'held A',
      'programmed A',
      'heard A',
      'heard B',
    ]);
    expect(met.map((one) => meetingWords(one, metric))).toEqual([
      'Held by the car for LF',
      'A sensor was programmed as its clone for LF, part uni-1, read back and right',
      'Heard at LF, 230 kPa, 12 °C',
      'Heard at RR, 230 kPa, 12 °C',
    ]);
  });

  it('of a wheel woken again and again on one visit the last time counts', () => {
    expect(
      meetingsOf(ids.LF, [visit('A', 0, [heard(0, 'LF'), heard(1, 'LF'), heard(2, 'LF')])]),
    ).toHaveLength(1);
  });
});

describe('one ID at two vehicles', () => {
  it('is a set that moved where its companions came along', () => {
    const all = [heard(0, 'LF'), heard(0, 'RF'), heard(0, 'RR'), heard(0, 'LR')];
    expect(why([visit('A', 0, all), visit('B', 90, all)])).toBe('set-moved');
    const three = all.slice(0, 3);
    expect(why([visit('A', 0, three), visit('B', 90, three)])).toBe('set-moved');
    const two = all.slice(0, 2);
    expect(why([visit('A', 0, two), visit('B', 90, two)])).toBe('sensor-moved');
  });

  it('is a sensor that moved where it left the one before it came to the other', () => {
    expect(why([visit('A', 0, [heard(0, 'LF')]), visit('B', 90, [heard(0, 'LF')])])).toBe('sensor-moved');
  });

  it('is a clone where one was programmed with it, by hand too', () => {
    const cloned = visit('B', 90, [heard(0, 'LF')], { carWrites: [clone(ids.LF, 90)] });
    expect(why([visit('A', 0, [heard(0, 'LF')]), cloned, visit('A', 120, [heard(0, 'LF')])])).toBe('clone');
  });

  it('is no clone where the sensor refused to be one', () => {
    const write = { ...clone(ids.LF, 90), answer: 'no' as const, readBack: undefined } as CarWrite;
    const refused = visit('B', 90, [heard(0, 'LF')], { carWrites: [write] });
    expect(why([visit('A', 0, [heard(0, 'LF')]), refused])).toBe('sensor-moved');
  });

  it('is a slip where the other holds it and hears one that differs in a digit', () => {
    const b = visit('B', 90, [holds({ LF: ids.LF }), heard(0, 'LF', reply('4B07C2D7'))]);
    expect(whyShared(ids.LF, [visit('A', 0, [heard(0, 'LF')]), b], 'A', 'B')).toEqual({
      why: 'slip',
      holder: 'B',
      ownId: '4B07C2D7',
    });
  });

  it('is left over where the other only holds it, and nothing is like it', () => {
    const b = visit('B', 90, [holds({ LF: ids.LF }), heard(0, 'LF', reply('1F00AB12'))]);
    expect(why([visit('A', 0, [heard(0, 'LF')]), b])).toBe('held-only');
  });

  it('is not explained where it was heard at both in turn', () => {
    const visits = [
      visit('A', 0, [heard(0, 'LF')]),
      visit('B', 90, [heard(0, 'LF')]),
      visit('A', 120, [heard(0, 'LF')]),
    ];
    expect(why(visits)).toBe('two-send-it');
  });

  it('is nothing where it was met at one alone', () => {
    expect(why([visit('A', 0, [heard(0, 'LF')]), visit('B', 0, [heard(0, 'RF')])])).toBeUndefined();
  });

  it('is worded with what to do', () => {
    const name = (vehicle: string) => `car ${vehicle}`;
    expect(sharedWords({ why: 'slip', holder: 'B', ownId: '4B07C2D7' }, name)).toMatch(
      /car B holds it.*4B07 C2D7.*register what is heard/,
    );
    expect(sharedWords({ why: 'sensor-moved', from: 'A', to: 'B' }, name)).toMatch(/at car B.*at car A/);
    expect(sharedWords({ why: 'clone', at: day(0) }, name)).toMatch(/new ID/);
  });
});
