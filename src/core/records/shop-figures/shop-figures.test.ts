import { describe, expect, it } from 'vitest';
import { jobWith } from '../../../../tests/support/car';
import { textsOf } from '../table';
import { tablesOf, type ShopFacts, type VisitFacts } from '.';
import { claimsOf } from './claims';
import { isComeback, whyBack, type ReturnFacts } from './comeback';
import { minutesByPlace } from './work';

const nothing: ShopFacts = {
  bookedIn: [],
  visits: [],
  steps: [],
  returns: [],
  faults: [],
  needless: [],
  fitted: 0,
  gauges: [],
  sureness: null,
};
const visit = (jobId: string, more: Partial<VisitFacts> = {}): VisitFacts => ({
  jobId,
  week: '2026-11-02',
  minutes: 60,
  by: 'Ines',
  proved: true,
  ...more,
});
const back = (more: Partial<ReturnFacts> = {}): ReturnFacts => ({
  first: { jobId: 'a', number: 1, handedOverAt: '2026-11-02T10:00:00Z', by: 'Ines', unproved: null },
  second: { jobId: 'b', number: 2, openedAt: '2026-11-12T10:00:00Z', complaint: null },
  label: 'Tern Vela',
  plate: 'KUR 1',
  planned: false,
  lamp: 'steady',
  turnedOutFirst: [],
  turnedOutSecond: [],
  ...more,
});
const sensor = (was: 'sensor-silent' | 'in-order', wheel: 'LF' | 'RR' = 'RR') => ({
  part: 'sensor' as const,
  wheel,
  was,
});

describe('why a car is back', () => {
  it.each([
    [
      'the same part at fault again',
      { turnedOutFirst: [sensor('sensor-silent')], turnedOutSecond: [sensor('sensor-silent')] },
      'same-part',
    ],
    [
      'the same part, though it left unproved too',
      {
        first: { ...back().first, unproved: 'no time' },
        turnedOutFirst: [sensor('sensor-silent')],
        turnedOutSecond: [sensor('sensor-silent')],
      },
      'same-part',
    ],
    ['it left unproved', { first: { ...back().first, unproved: 'no time' } }, 'left-unproved'],
    [
      'another part',
      { turnedOutFirst: [sensor('sensor-silent', 'LF')], turnedOutSecond: [sensor('sensor-silent')] },
      'other-part',
    ],
    ['the lamp, and nobody said what it was', {}, 'lamp-on'],
  ] as const)('%s: a comeback', (_, more, why) => {
    const found = whyBack(back(more as Partial<ReturnFacts>));
    expect(found.why).toBe(why);
    expect(isComeback(found)).toBe(true);
  });

  it.each([
    ['it was asked to come', { planned: true, turnedOutSecond: [sensor('sensor-silent')] }, 'planned'],
    ['other work, its lamp off', { lamp: 'off' }, 'lamp-off'],
    ['nobody looked at the lamp', { lamp: null }, 'not-seen'],
    [
      'a part that was in order both times',
      { lamp: 'off', turnedOutFirst: [sensor('in-order')], turnedOutSecond: [sensor('in-order')] },
      'lamp-off',
    ],
  ] as const)('%s: none', (_, more, why) => {
    const found = whyBack(back(more as Partial<ReturnFacts>));
    expect(found.why).toBe(why);
    expect(isComeback(found)).toBe(false);
  });
});

describe('the figures of some weeks', () => {
  const facts: ShopFacts = {
    ...nothing,
    bookedIn: [
      { week: '2026-11-02', cars: 5 },
      { week: '2026-11-16', cars: 1 },
    ],
    visits: [
      ...[30, 40, 50, 200].map((minutes, n) => visit(`a${n}`, { minutes, proved: n > 0 })),
      visit('a', { week: '2026-11-16', by: 'Marisol' }),
    ],
    returns: [back(), back({ lamp: 'off', first: { ...back().first, jobId: 'a1' } })],
    steps: [
      { kind: 'gauge', by: 'Ines', minutes: 20 },
      { kind: 'visual', by: 'Ines', minutes: 5 },
      { kind: 'run', by: 'Ines', minutes: 30 },
    ],
  };
  const { weeks, people, minutes, back: returns } = tablesOf(facts);

  it('stand by week, those without a car too', () => {
    // By hand: the middle of 30, 40, 50, 200 is 45; nine tenths lie at 50 + 0.7 · 150, as spreadsheets have it
    // (Hyndman and Fan 1996, type 7, from memory); three of four are proved.
    expect(textsOf(weeks).slice(1)).toEqual([
      ['2026-11-02', '5', '4', '45', '155', '75', '0'],
      ['2026-11-09', '0', '0', '', '', '', '0'],
      ['2026-11-16', '1', '1', '60', '60', '100', '1'],
    ]);
  });

  it('count a comeback for who handed the car over, and other returns for nobody', () => {
    expect(people.rows.map(([name, , , , , count]) => [name, count])).toEqual([
      ['Ines', 0],
      ['Marisol', 1],
    ]);
    expect(returns.rows.map((row) => row.at(-1))).toEqual(['yes', 'no']);
    expect(textsOf(returns)[1]?.[5]).toBe('10');
  });

  it('give every minute to a station, and the rest to waiting', () => {
    expect(minutesByPlace(facts.steps).get('gauge')).toBe(25);
    const all = minutes.rows.reduce((sum, [, each]) => sum + Number(each), 0);
    expect(all * 5).toBeCloseTo(30 + 40 + 50 + 200 + 60, 9);
  });

  it('say nothing of a shop in which nothing was done', () => {
    for (const table of Object.values(tablesOf(nothing))) expect(table.rows).toEqual([]);
  });
});

describe('what was said against what it turned out to be', () => {
  const silent = jobWith(
    (['pulsed', 'continuous', 'magnet'] as const).map((trigger) => ({
      kind: 'activation',
      at: '2026-11-02T08:00:00Z',
      wheel: 'RR',
      trigger,
      replies: [],
    })),
  );
  const saying = (parts: ReturnType<typeof sensor>[]) => ({
    ...silent,
    confirmations: [{ key: 'k', at: '2026-11-02T10:00:00Z', by: 'Ines', parts }],
  });

  it('counts only parts somebody had in hand', () => {
    expect(claimsOf(silent)).toEqual({ claims: [], missed: 0 });
    const { claims, missed } = claimsOf(saying([sensor('sensor-silent')]));
    expect(claims.filter((claim) => claim.true)).toHaveLength(1);
    expect(claims.find((claim) => claim.true)?.chance).toBeGreaterThan(0.3);
    expect(missed).toBe(0);
  });

  it('counts a fault of which nothing was said as missed', () => {
    expect(claimsOf({ ...saying([sensor('sensor-silent')]), observations: [] }).missed).toBe(1);
  });
});
