import fc from 'fast-check';
import { describe, it } from 'vitest';
import {
  display,
  gauge,
  gauges,
  heard,
  ids,
  jobWith,
  lamp,
  live,
  lives,
  minute,
  placard,
  registry,
  scans,
  silent,
} from '../../../../tests/support/car';
import { expectationSchema, expectCase } from '../../../../tests/support/case';
import type { FindingCode } from '../../catalogue/finding';
import type { Job, Observation, Tpms } from '../../job';
import { roadWheels, type Position } from '../../names/wheel';

/**
 * Kinds of case, each with whatever figures belong to it: what a practitioner would say must not hang on the wheel
 * or on a figure that says the same. By the patterns common in the trade; the same figures in every run.
 */
interface Scene {
  seen: Observation[];
  more?: Partial<Job> & { tpms?: Partial<Tpms> };
  is: Partial<Record<FindingCode, Position[]>>;
  allowed?: FindingCode[];
}

const wheel = fc.constantFrom(...roadWheels);
const twoWheels = fc.shuffledSubarray([...roadWheels], { minLength: 2, maxLength: 2 });
const between = (min: number, max: number) => fc.integer({ min, max });
const errors = fc.tuple(between(-2, 2), between(-2, 2), between(-2, 2), between(-2, 2));
const newId = fc.string({ unit: fc.constantFrom(...'0123456789ABCDEF'), minLength: 8, maxLength: 8 });

/** All four gauged near placard, as gauges err, but for what is said. */
const nearPlacard = (error: readonly number[], but: Partial<Record<Position, number>> = {}): Observation[] =>
  roadWheels.map((at, place) => gauge(1, at, but[at] ?? placard[at] + (error[place] ?? 0)));

const at = (place: Position, sign: 'stem-metal' | 'stem-rubber' | 'odd-size'): Observation => ({
  kind: 'visual',
  at: minute(0),
  wheel: place,
  sign,
});
const tried = (place: Position): Observation[] => [silent(3, place), silent(4, place, 'continuous')];
const exchanged = ([one, other]: readonly Position[]): Partial<Record<Position, string>> =>
  one && other ? { [one]: ids[other], [other]: ids[one] } : {};

/** An ID as it comes out when a slip is made at this digit. */
function slipped(id: string, kind: 'wrong' | 'lost' | 'doubled' | 'exchanged', digit: number): string {
  const [before, here, after] = [id.slice(0, digit), id.charAt(digit), id.slice(digit + 1)];
  switch (kind) {
    case 'wrong':
      return `${before}${here === '7' ? '1' : '7'}${after}`;
    case 'lost':
      return before + after;
    case 'doubled':
      return before + here + here + after;
    case 'exchanged':
      return before + after.charAt(0) + here + after.slice(1);
  }
}

const families: Record<string, fc.Arbitrary<Scene>> = {
  'a tire at or under the lamp’s figure is low': fc
    .tuple(wheel, between(60, 173), errors, fc.boolean())
    .map(([low, kPa, error, woken]) => ({
      seen: [
        lamp(0, 'steady'),
        ...nearPlacard(error, { [low]: kPa }),
        ...(woken ? scans(3, { [low]: [heard(3, low, { kPa })] }) : []),
      ],
      is: { 'tire-low': [low] },
      allowed: ['tire-leaking'],
    })),
  'a tire short of placard with the lamp dark is short': fc
    .tuple(wheel, between(10, 17), errors)
    .map(([short, by, error]) => ({
      seen: [lamp(0, 'off'), ...nearPlacard(error, { [short]: placard[short] - by })],
      is: { 'tire-underinflated': [short] },
      allowed: ['tire-leaking'],
    })),
  'between the lamp’s two figures a lit lamp stays lit': fc
    .tuple(wheel, between(180, 195), errors)
    .map(([held, kPa, error]) => ({
      seen: [lamp(0, 'steady'), ...nearPlacard(error, { [held]: kPa })],
      is: { 'lamp-latched': [held], 'tire-underinflated': [held] },
      allowed: ['tire-leaking'],
    })),
  'a tire over the high figure is over': fc
    .tuple(wheel, between(335, 380), errors)
    .map(([over, kPa, error]) => ({
      seen: nearPlacard(error, { [over]: kPa }),
      is: { 'tire-overinflated': [over] },
    })),
  'what is lost within days, by one tire alone, is a leak': fc
    .tuple(wheel, between(1, 4), between(18, 45), errors, errors)
    .map(([leaks, days, lost, then, now]) => ({
      seen: [
        ...roadWheels.map((place, n) => gauge(0, place, placard[place] + (then[n] ?? 0))),
        ...roadWheels.map((place, n) =>
          gauge(days * 1440, place, placard[place] + (now[n] ?? 0) - (place === leaks ? lost : 0)),
        ),
      ],
      is: { 'tire-leaking': [leaks] },
      allowed: ['tire-low', 'tire-underinflated', 'lamp-latched'],
    })),
  'what the gas law takes off all four is no leak in any': fc
    .tuple(between(18, 28), between(-4, 6), between(0, 2000))
    .map(([then, now, altitudeM]) => {
      // Gas law at constant volume, absolute pressures and temperatures; standard air at height (ISO 2533, from memory).
      const air = 101.325 * (1 - (0.0065 * altitudeM) / 288.15) ** 5.25588;
      const after = (kPa: number) => Math.round((kPa + air) * ((now + 273.15) / (then + 273.15)) - air);
      return {
        seen: [
          ...roadWheels.map((place) => gauge(0, place, placard[place], { tireC: then })),
          ...roadWheels.map((place) => gauge(1440, place, after(placard[place]), { tireC: now })),
        ],
        more: { climate: { nowC: now, altitudeM } },
        is: {},
        allowed: ['tire-underinflated', 'tire-low'],
      };
    }),
  'a sensor silent to two triggers, with the lamp’s own sign for it, is silent': fc
    .tuple(wheel, errors, fc.boolean(), fc.boolean(), between(1, 9))
    .map(([gone, error, read, driven, ageYears]) => ({
      seen: [
        lamp(0, 'flash-then-steady'),
        ...nearPlacard(error),
        ...scans(3, { [gone]: tried(gone) }),
        ...(read ? [registry(6)] : []),
        ...(driven
          ? roadWheels.map((place) => live(20, place, place === gone ? null : placard[place], 60))
          : []),
      ],
      more: { sensors: roadWheels.map((place) => ({ id: ids[place], wheel: place, ageYears })) },
      is: { 'sensor-silent': [gone] },
      allowed: ['sensor-battery-low'],
    })),
  'a rubber stem, no answer, and nothing held for the wheel: there is no sensor': fc
    .tuple(wheel, errors)
    .map(([bare, error]) => ({
      seen: [
        lamp(0, 'flash-then-steady'),
        ...roadWheels.map((place) => at(place, place === bare ? 'stem-rubber' : 'stem-metal')),
        ...nearPlacard(error),
        ...scans(3, { [bare]: tried(bare) }),
        registry(6, { [bare]: null }),
      ],
      is: { 'sensor-absent': [bare] },
    })),
  'a sensor off from a trusted gauge by far more than ten reads wrong': fc
    .tuple(wheel, between(17, 45), fc.constantFrom(-1, 1), errors)
    .map(([off, by, way, error]) => ({
      seen: [
        ...nearPlacard(error),
        ...scans(3, { [off]: [heard(3, off, { kPa: placard[off] + way * by })] }),
      ],
      is: { 'sensor-inaccurate': [off] },
    })),
  'another carrier or family is the wrong part': fc
    .tuple(wheel, fc.constantFrom({ frequencyMHz: 315 }, { family: 'plover' }), errors, fc.boolean())
    .map(([wrong, part, error, read]) => ({
      seen: [
        lamp(0, 'flash-then-steady'),
        ...nearPlacard(error),
        ...scans(3, { [wrong]: [heard(3, wrong, part)] }),
        ...(read ? [registry(6)] : []),
      ],
      is: { 'sensor-wrong-type': [wrong] },
    })),
  'the sensor that misses a third of its check-ins or more drops out': fc
    .tuple(wheel, between(40, 90), between(40, 66), errors)
    .map(([drops, expected, percent, error]) => ({
      seen: [
        lamp(0, 'flash-while-driving'),
        ...nearPlacard(error),
        ...scans(3),
        registry(6),
        ...roadWheels.map((place): Observation => ({
          kind: 'reception',
          at: minute(40),
          id: ids[place],
          expected,
          received: place === drops ? Math.round((expected * percent) / 100) : expected - 1,
        })),
      ],
      is: { 'sensor-intermittent': [drops] },
    })),
  'an ID the car holds nowhere is not registered': fc
    .tuple(wheel, fc.option(newId), errors)
    .map(([unknown, held, error]) => ({
      seen: [
        lamp(0, 'flash-then-steady'),
        ...nearPlacard(error),
        ...scans(3),
        registry(6, { [unknown]: held }),
      ],
      is: { 'id-not-registered': [unknown] },
    })),
  'an ID one slip away was mistyped': fc
    .tuple(wheel, fc.constantFrom('wrong', 'lost', 'doubled', 'exchanged'), between(0, 6), errors)
    .filter(([place, kind, digit]) => slipped(ids[place], kind, digit) !== ids[place])
    .map(([typed, kind, digit, error]) => ({
      seen: [
        lamp(0, 'flash-then-steady'),
        ...nearPlacard(error),
        ...scans(3),
        registry(6, { [typed]: slipped(ids[typed], kind, digit) }),
      ],
      is: { 'id-mistyped': [typed] },
    })),
  'one ID held at two positions is held twice': fc.tuple(twoWheels, errors).map(([[one, other], error]) => ({
    seen: [
      lamp(0, 'flash-then-steady'),
      ...nearPlacard(error),
      ...scans(3),
      registry(6, one && other ? { [one]: ids[other] } : {}),
    ],
    is: { 'id-duplicate': one && other ? [one, other] : [] },
    allowed: ['id-not-registered'],
  })),
  'two IDs held at each other’s position: two wheels changed places': fc
    .tuple(twoWheels, fc.constantFrom('rotation', 'wheels-swapped', 'tires-fitted'), between(1, 300), errors)
    .map(([pair, kind, hoursAgo, error]) => ({
      seen: [lamp(0, 'off'), ...nearPlacard(error), ...scans(3), registry(6, exchanged(pair))],
      more: { service: { kind, hoursAgo } },
      is: { 'positions-swapped': pair },
    })),
  'a neighbour’s ID, weak and with its pressure, was heard across': fc
    .tuple(twoWheels, between(-78, -62), errors)
    .map(([[here = 'LF', there = 'RF'], rssiDbm, error]) => ({
      seen: [
        ...nearPlacard(error),
        ...scans(3, { [here]: [heard(3, here, { id: ids[there], kPa: placard[there], rssiDbm })] }),
      ],
      is: { 'cross-read': [here] },
    })),
  'the IDs of the set that was put away: the car still holds that one': fc
    .tuple(fc.uniqueArray(newId, { minLength: 4, maxLength: 4 }), errors, fc.boolean())
    .map(([away, error, filed]) => ({
      seen: [
        lamp(0, 'flash-then-steady'),
        ...nearPlacard(error),
        ...scans(3),
        registry(6, Object.fromEntries(roadWheels.map((place, n) => [place, away[n] ?? null]))),
      ],
      more: {
        otherSets: [{ label: 'winter', ids: away }],
        ...(filed && { sensors: roadWheels.map((place) => ({ id: ids[place], wheel: place })) }),
      },
      is: { 'other-set-registered': [] },
      allowed: ['id-not-registered'],
    })),
  'all answer, all are held, none is heard on the road: the receiver': fc
    .tuple(between(50, 110), errors)
    .map(([speed, error]) => ({
      seen: [
        lamp(0, 'flash-then-steady'),
        ...nearPlacard(error),
        ...scans(3),
        registry(6),
        ...lives(20, null, speed),
      ],
      is: { 'receiver-fault': [] },
    })),
  'nothing heard from a car that stands: they sleep': fc
    .tuple(between(0, 35), fc.constantFrom(0, null), errors)
    .map(([speed, nothing, error]) => ({
      seen: [lamp(0, 'off'), ...nearPlacard(error), ...scans(3), registry(6), ...lives(20, nothing, speed)],
      is: { 'sensors-asleep': [...roadWheels] },
    })),
  'everything looked at, nothing found': fc
    .tuple(errors, between(0, 4), between(0, 2500), fc.boolean())
    .map(([error, ageYears, altitudeM, blanks]) => ({
      seen: [
        lamp(0, 'off'),
        ...nearPlacard(error),
        ...scans(3),
        registry(
          6,
          Object.fromEntries(
            roadWheels.map((place) => [
              place,
              blanks ? `${ids[place].slice(0, 4).toLowerCase()} ${ids[place].slice(4)}` : ids[place],
            ]),
          ),
        ),
        ...lives(20, undefined, 70),
      ],
      more: {
        climate: { nowC: 12, altitudeM },
        sensors: roadWheels.map((place) => ({ id: ids[place], wheel: place, ageYears })),
      },
      is: { 'no-fault': [] },
    })),
  'one low tire and one silent sensor are two findings': fc
    .tuple(twoWheels, between(90, 168), errors)
    .map(([[low = 'LF', gone = 'RF'], kPa, error]) => ({
      seen: [
        lamp(0, 'flash-then-steady'),
        ...nearPlacard(error, { [low]: kPa }),
        ...scans(3, { [low]: [heard(3, low, { kPa })], [gone]: tried(gone) }),
        registry(6),
      ],
      is: { 'tire-low': [low], 'sensor-silent': [gone] },
      allowed: ['tire-leaking'],
    })),
  'displays that show another wheel’s figure: those two changed places': fc
    .tuple(fc.constantFrom('LF', 'RF'), between(120, 165), errors)
    .map(([front, kPa, error]) => {
      const rear = front === 'LF' ? 'LR' : 'RR';
      const figures = { LF: 231, RF: 236, RR: 222, LR: 217, [rear]: kPa };
      return {
        seen: [
          lamp(0, 'steady'),
          ...roadWheels.map((place) => gauge(1, place, figures[place])),
          ...roadWheels.map((place, n) => {
            const shows = place === front ? rear : place === rear ? front : place;
            return display(8, place, figures[shows] + Math.sign(error[n] ?? 0));
          }),
        ],
        more: { service: { kind: 'wheels-swapped', hoursAgo: 20 } },
        is: { 'tire-low': [rear], 'positions-swapped': [front, rear] },
        allowed: ['tire-leaking', 'tire-underinflated'],
      };
    }),
  'an indirect system’s wheel that turns otherwise at its right pressure is of another size': fc
    .tuple(wheel, between(5, 10), fc.constantFrom(-1, 1), errors)
    .map(([odd, thousandths, way, error]) => ({
      seen: [
        lamp(0, 'steady'),
        ...nearPlacard(error),
        ...roadWheels.map((place, n): Observation => ({
          kind: 'wheelspeed',
          at: minute(30),
          wheel: place,
          ratio: place === odd ? 1 + (way * thousandths) / 1000 : 1 + (error[n] ?? 0) / 10_000,
        })),
      ],
      more: { tpms: { kind: 'indirect', positions: [] } },
      is: { 'rolling-radius-off': [odd] },
      allowed: ['baseline-not-set'],
    })),
};

describe('whatever the wheel and the figures', () => {
  for (const [name, scenes] of Object.entries(families)) {
    it(name, () => {
      fc.assert(
        fc.property(scenes, ({ seen, more = {}, is, allowed = [] }) => {
          const findings = Object.entries(is).map(([code, wheels]) => ({ code, wheels }));
          expectCase({
            name,
            job: jobWith(seen, more),
            expect: expectationSchema.parse({ findings, allowed }),
          });
        }),
        { numRuns: 30, seed: 1_789 },
      );
    });
  }

  it('the gauges of a car in order err both ways, and say nothing', () => {
    expectCase({
      name: 'gauges',
      job: jobWith(gauges(1)),
      expect: expectationSchema.parse({ findings: [] }),
    });
  });
});
