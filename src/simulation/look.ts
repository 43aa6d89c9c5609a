import type { Test } from '../core/catalogue/tests';
import type { Observation, Seen } from '../core/job';
import type { Position } from '../core/names/wheel';
import { atTemperature } from '../core/measure/pressure';
import { arrivesAt, canHear, lowLine, lowOffKPa, saidBy, type TrueCar, type TrueWheel } from './car';
import type { Chance } from './chance';

/** What a look at a true car shows: its lamp when it is booked in, and the answer of any test. */

/** The time of the nth thing done. */
const at = (n: number): string => new Date(Date.parse(arrivesAt) + n * 60_000).toISOString();

export function lampOf(car: TrueCar, chance: Chance): Seen<'lamp'> {
  const lamp = (state: Seen<'lamp'>['state'], more: Partial<Seen<'lamp'>> = {}): Seen<'lamp'> => ({
    kind: 'lamp',
    at: at(0),
    state,
    bulbCheck: true,
    otherLamps: [],
    ...more,
  });
  const { seen } = car.world;
  if (car.lampDark) return lamp('off', { bulbCheck: false });
  if (car.wheelSpeedFault)
    return lamp(
      chance.is(0.55) ? 'steady' : 'flash-then-steady',
      chance.is(0.85) ? { otherLamps: ['abs'] } : {},
    );
  const malfunction =
    car.receiverFault ||
    (car.kind === 'direct' &&
      car.wheels.some(
        (wheel) => wheel.sensor !== 'alive' || wheel.wrongType || wheel.registration !== 'registered',
      ));
  const shows = (wheel: TrueWheel) => (car.kind === 'direct' ? saidBy(wheel) : wheel.kPa);
  if (malfunction && chance.is(seen.lampSaysMalfunction)) return lamp('flash-then-steady');
  if (car.wheels.some((wheel) => shows(wheel) <= lowLine(wheel, car)) && chance.is(seen.lampSaysLow))
    return lamp('steady');
  if (car.kind === 'direct' && car.wheels.some((wheel) => shows(wheel) < lowOffKPa) && chance.is(0.4))
    return lamp('steady');
  if (car.kind === 'direct' && car.wheels.some(({ intermittent }) => intermittent)) {
    const share = chance.share();
    if (share < seen.lampSaysIntermittent) return lamp('flash-while-driving');
    if (share < seen.lampSaysIntermittent + 0.2) return lamp('flash-then-steady');
  }
  if (
    (car.baselineNotSet || car.wheels.some(({ oddRadius }) => oddRadius)) &&
    chance.is(seen.lampSaysBaseline)
  )
    return lamp('steady');
  if (chance.is(seen.lampFalse))
    return lamp(chance.oneOf(['steady', 'flash-then-steady', 'flash-while-driving']));
  return lamp('off');
}

/** Does a test on the car; `n` counts what was done before it. */
export function doTest(
  car: TrueCar,
  test: Test,
  wheel: Position | undefined,
  n: number,
  chance: Chance,
): Observation[] {
  const { wheels } = car;
  const one = wheels.find((candidate) => candidate.wheel === wheel);
  switch (test) {
    case 'gauge':
      return one ? [gauge(car, one, n, chance)] : [];
    case 'visual':
      return one ? look(car, one, n, chance) : [];
    case 'activation':
      return one ? [wake(car, one, n, chance)] : [];
    case 'registry':
      return readCar(car, n, chance);
    case 'display':
    case 'shift':
      return [...car.wheelAt].map(([position, there]) => ({
        kind: 'display',
        at: at(n),
        wheel: position,
        kPa:
          canHear(car, there) && chance.is(0.95)
            ? Math.max(1, Math.round(warm(car, saidBy(there), there) + chance.normal(0, 1.2)))
            : null,
      }));
    case 'drive':
      return [...car.wheelAt].map(([position, there]) => ({
        kind: 'live',
        at: at(n),
        wheel: position,
        kPa: live(car, there, chance),
        speedKmh: 65,
      }));
    case 'reception':
      return [...car.wheelAt.values()].flatMap((there): Observation[] =>
        there.sensor === 'alive'
          ? [
              {
                kind: 'reception',
                at: at(n),
                id: there.id,
                expected: 60,
                received: received(car, there, chance),
              },
            ]
          : [],
      );
    case 'wheelspeed': {
      const mean = wheels.reduce((sum, turning) => sum + turn(turning), 0) / wheels.length;
      return wheels.map((turning) => ({
        kind: 'wheelspeed',
        at: at(n),
        wheel: turning.wheel,
        ratio: (turn(turning) / mean) * (1 + chance.normal(0, 0.0004)),
      }));
    }
    case 'baseline':
      return [{ kind: 'relearn', at: at(n), method: 'reset', outcome: 'done' }];
    case 'lamp':
      return [{ ...lampOf(car, chance), at: at(n) }];
  }
}

/** What a figure is in a tire that is as warm as the car's are; a sensor that is stuck says the same. */
function warm({ warmK, job }: TrueCar, kPa: number, wheel?: TrueWheel): number {
  const nowC = job.climate?.nowC ?? 0;
  return warmK === 0 || wheel?.stuckKPa !== undefined
    ? kPa
    : atTemperature({ kPa, celsius: nowC, altitudeM: 0 }, nowC + warmK);
}

function gauge(car: TrueCar, wheel: TrueWheel, n: number, chance: Chance): Observation {
  const { seen } = car.world;
  const wild = chance.is(seen.gaugeWildShare);
  const error = chance.normal(0, wild ? seen.gaugeWildSd : seen.gaugeSd);
  const again = car.job.observations.some(
    (seenBefore) => seenBefore.kind === 'gauge' && seenBefore.wheel === wheel.wheel,
  );
  // Who reads a wheel again because the gauge is doubted takes another one.
  const beside = again ? 0 : (car.gaugeOffKPa ?? 0);
  const kPa = Math.max(0, Math.round(warm(car, wheel.kPa) + beside + error));
  const read = { kind: 'gauge' as const, at: at(n), wheel: wheel.wheel, kPa };
  if (car.warmK === 0) return { ...read, tire: 'cold' as const };
  // Half of those who gauge a warm tire measure how warm it is.
  const tireC = Math.round((car.job.climate?.nowC ?? 0) + car.warmK + chance.normal(0, 1));
  return { ...read, tire: 'warm' as const, ...(chance.is(0.5) && { tireC }) };
}

function look(car: TrueCar, wheel: TrueWheel, n: number, chance: Chance): Observation[] {
  const sign = (found: Seen<'visual'>['sign']): Observation => ({
    kind: 'visual',
    at: at(n),
    wheel: wheel.wheel,
    sign: found,
  });
  const metal = car.kind === 'direct' && wheel.sensor !== 'absent' ? chance.is(0.85) : chance.is(0.08);
  return [
    sign(metal ? 'stem-metal' : 'stem-rubber'),
    ...(wheel.leaking && chance.is(car.world.seen.objectInLeak) ? [sign('object')] : []),
    ...(!wheel.leaking && chance.is(0.006) ? [sign('object')] : []),
    ...(wheel.oddRadius && chance.is(0.6) ? [sign('odd-size')] : []),
    ...(wheel.spare && chance.is(0.85) ? [sign('odd-size')] : []),
  ];
}

function wake(car: TrueCar, wheel: TrueWheel, n: number, chance: Chance): Observation {
  const { seen } = car.world;
  const again = car.job.observations.some(
    (seenBefore) => seenBefore.kind === 'activation' && seenBefore.wheel === wheel.wheel,
  );
  const reply = (of: TrueWheel, near: boolean) => ({
    id: of.id,
    kPa: Math.max(0, Math.round(warm(car, saidBy(of), of))),
    ...(car.warmK > 0 && {
      tempC: Math.round((car.job.climate?.nowC ?? 0) + car.warmK + chance.normal(0, 1)),
    }),
    frequencyMHz: of.wrongType ? 315 : 433.92,
    family: of.wrongType ? 'plover' : 'kestrel',
    battery: of.ending && chance.is(seen.flaggedEnding) ? ('low' as const) : ('ok' as const),
    rssiDbm: Math.round(near ? chance.normal(of.ending ? -62 : -50, 7) : chance.normal(-69, 7)),
  });
  const answers =
    wheel.sensor === 'alive' &&
    chance.is((again ? seen.answersAgain : seen.answers) * (wheel.ending ? 0.8 : 1));
  const neighbour = chance.is(seen.neighbour)
    ? car.wheels.find((other) => other !== wheel && other.sensor === 'alive')
    : undefined;
  return {
    kind: 'activation',
    at: at(n),
    wheel: wheel.wheel,
    trigger: again ? 'continuous' : 'pulsed',
    replies: [...(answers ? [reply(wheel, true)] : []), ...(neighbour ? [reply(neighbour, false)] : [])],
  };
}

function readCar(car: TrueCar, n: number, chance: Chance): Observation[] {
  const { seen } = car.world;
  const codes = [...car.wheelAt].flatMap(([position, there]): Observation[] => {
    const unheard = !canHear(car, there) && !car.receiverFault;
    return chance.is(unheard ? seen.codeIfUnheard : seen.codeIfHeard)
      ? [
          {
            kind: 'dtc',
            at: at(n),
            code: `C1A0${car.wheels.indexOf(there)}`,
            status: 'active',
            about: 'no-signal',
            wheel: position,
          },
        ]
      : [];
  });
  const receiver: Observation[] =
    car.receiverFault && chance.is(0.55)
      ? [{ kind: 'dtc', at: at(n), code: 'C1A0F', status: 'active', about: 'receiver' }]
      : [];
  return [
    { kind: 'registry', at: at(n), entries: [...car.held].map(([wheel, id]) => ({ wheel, id })) },
    ...codes,
    ...receiver,
  ];
}

function live(car: TrueCar, wheel: TrueWheel, chance: Chance): number | null {
  if (!canHear(car, wheel) || chance.is(wheel.intermittent ? 0.4 : car.world.seen.missedDriving)) return null;
  const warmed = wheel.stuckKPa === undefined ? chance.normal(car.warmK > 0 ? 2 : 6, 5) : 0;
  return Math.max(1, Math.round(warm(car, saidBy(wheel), wheel) + warmed));
}

function received(car: TrueCar, wheel: TrueWheel, chance: Chance): number {
  if (car.receiverFault) return 0;
  const share = wheel.intermittent ? chance.between(0.35, 0.8) : chance.between(0.92, 1);
  return Array.from({ length: 60 }, () => chance.is(share)).filter(Boolean).length;
}

const turn = ({ kPa, placardKPa, oddRadius, wheel }: TrueWheel): number =>
  1 + 0.00006 * (placardKPa - kPa) + (oddRadius ? (wheel === 'LF' || wheel === 'RR' ? 0.006 : -0.005) : 0);
