import type { Job, Service } from '../core/job';
import { overinflatedShare, regulations } from '../core/car/lamp';
import { atTemperature } from '../core/measure/pressure';
import { usualWakeSpeedKmh } from '../core/car/wake-speed';
import { roadWheels, type Position } from '../core/names/wheel';
import { befall } from './befell';
import type { Chance } from './chance';
import type { World } from './world';

/** A wheel as it truly is. */
export interface TrueWheel {
  wheel: Position;
  placardKPa: number;
  /** At the outdoor temperature of now. */
  kPa: number;
  leaking: boolean;
  cooled: boolean;
  id: string;
  sensor: 'alive' | 'dead' | 'absent';
  ending: boolean;
  wrongType: boolean;
  intermittent: boolean;
  offsetKPa: number;
  /** What its sensor says whatever it stands at, kPa. */
  stuckKPa: number | undefined;
  registration: 'registered' | 'mistyped' | 'unregistered';
  oddRadius: boolean;
  /** It is the small spare, in place of the wheel that was there. */
  spare?: boolean;
}

type WholeSet = 'not-learned' | 'without-sensors' | 'another-family';

/** What the sensor of a wheel says of its pressure, kPa at the outdoor temperature of now. */
export const saidBy = ({ stuckKPa, kPa, offsetKPa }: TrueWheel): number => stuckKPa ?? kPa + offsetKPa;

/** A car as it truly is, and the job as it stands when it is booked in. */
export interface TrueCar {
  /** What it was drawn from. */
  world: World;
  job: Job;
  kind: 'direct' | 'indirect';
  /** How much warmer than the outdoor air its tires are, K: it was just driven in. */
  warmK: number;
  /** A whole set that the car does not hear, and why. */
  set: 'own' | WholeSet;
  wheels: TrueWheel[];
  /** By position of the car: the wheel that is there now. */
  wheelAt: Map<Position, TrueWheel>;
  held: Map<Position, string | null>;
  receiverFault: boolean;
  otherSetHeld: boolean;
  lampDark: boolean;
  baselineNotSet: boolean;
  wheelSpeedFault: boolean;
  cooled: boolean;
  /** What the shop's gauge reads beside the truth, kPa; another one is right. */
  gaugeOffKPa?: number;
}

/** The lamp's figures on every simulated car with sensors. */
export const lowOnKPa = 175;
export const lowOffKPa = 200;
export const highOnKPa = 330;

/** Where the lamp of this car lights, kPa: an indirect system goes by the shares of the placard. */
export const lowLine = ({ placardKPa }: TrueWheel, { kind }: Pick<TrueCar, 'kind'>): number =>
  kind === 'direct' ? lowOnKPa : regulations.US.lowShareOfPlacard * placardKPa;
export const highLine = ({ placardKPa }: TrueWheel, { kind }: Pick<TrueCar, 'kind'>): number =>
  kind === 'direct' ? highOnKPa : overinflatedShare * placardKPa;

type AxlesKPa = readonly [front: number, rear: number];
const placards: readonly [AxlesKPa, ...AxlesKPa[]] = [
  [230, 220],
  [240, 240],
  [220, 250],
  [250, 230],
];

/** When every simulated car comes in. */
export const arrivesAt = '2026-10-14T14:00:00.000Z';

/** Draws a car; `off` is how far this block of cars is from the world's figures. */
export function drawCar(chance: Chance, off: (figure: string) => number, world: World): TrueCar {
  const kind = chance.is(0.9) ? 'direct' : 'indirect';
  const service = chance.weighted(world.services, 'none');
  const hoursAgo = Math.round(chance.between(1, 200));
  const work = world.work[service];
  const rate = (figure: string, base: number) => Math.min(0.6, base * off(figure) * (work[figure] ?? 1));
  const ageYears = chance.is(0.7) ? Math.round(chance.between(0, 100)) / 10 : undefined;
  const known = kind === 'direct' && chance.is(0.5);
  const placard = chance.oneOf(placards);
  const nowC = Math.round(chance.between(-8, 28));
  const fall = chance.is(0.25) ? Math.round(chance.between(12, 30)) : undefined;
  const cooled = fall !== undefined && chance.is(world.car.cold);
  const ids = new Set<string>();
  const newId = () => {
    let id = '';
    do
      id = Array.from({ length: 8 }, () => Math.floor(chance.share() * 16).toString(16))
        .join('')
        .toUpperCase();
    while (ids.has(id));
    ids.add(id);
    return id;
  };
  const wheels = roadWheels.map((wheel): TrueWheel => {
    const placardKPa = wheel === 'LF' || wheel === 'RF' ? placard[0] : placard[1];
    return drawWheel(chance, world, {
      wheel,
      placardKPa,
      rate,
      ageYears,
      id: newId(),
      cooledBy: cooled ? fall : undefined,
      nowC,
    });
  });
  const set = kind === 'direct' ? drawSet(chance, world, service) : 'own';
  if (set !== 'own') for (const wheel of wheels) putOn(wheel, set);
  const moved = set === 'own' && kind === 'direct' && chance.is(rate('moved', world.car.moved));
  const order = moved ? drawOrder(chance, service === 'rotation') : [0, 1, 2, 3];
  const wheelAt = new Map(
    roadWheels.map((position, at) => [position, wheels[order[at] ?? at] ?? drawNever()] as const),
  );
  const otherIds =
    kind === 'direct' && chance.is(world.car.otherSetOnFile)
      ? [newId(), newId(), newId(), newId()]
      : undefined;
  const otherSetHeld =
    set === 'own' && otherIds !== undefined && chance.is(rate('otherSetHeld', world.car.otherSetHeld));
  const held = new Map(
    roadWheels.map((position, at) => {
      if (otherSetHeld) return [position, otherIds[at] ?? null] as const;
      return [position, heldFor(chance, wheelAt.get(position) ?? drawNever(), newId)] as const;
    }),
  );
  if (otherSetHeld) for (const wheel of wheels) wheel.registration = 'unregistered';
  const changed = service !== 'none' && service !== 'sensor-replaced';
  const indirect = kind === 'indirect';
  const isWarm = chance.is(world.car.drivenIn);
  const car: TrueCar = {
    world,
    kind,
    set,
    warmK: isWarm ? chance.between(6, 26) : 0,
    wheels,
    wheelAt,
    held,
    receiverFault: !indirect && chance.is(rate('receiver', world.car.receiver)),
    otherSetHeld,
    lampDark: chance.is(rate('lampDark', world.car.lampDark)),
    baselineNotSet:
      indirect &&
      chance.is(rate('baseline', changed ? world.indirect.baselineAfterWork : world.indirect.baseline)),
    wheelSpeedFault: indirect && chance.is(rate('wheelSpeed', world.indirect.wheelSpeed)),
    cooled: cooled && wheels.every((wheel) => wheel.cooled),
    job: {
      format: 'hacienda.job/1',
      vehicle: {
        tpms: indirect
          ? { kind: 'indirect' }
          : {
              kind: 'direct',
              positions: [...roadWheels],
              frequencyMHz: 433.92,
              family: 'kestrel',
              idDigits: 8,
              locates: true,
              wakeSpeedKmh: usualWakeSpeedKmh,
              lowOnKPa,
              lowOffKPa,
              highOnKPa,
            },
      },
      placard: [
        { position: 'front', coldKPa: placard[0] },
        { position: 'rear', coldKPa: placard[1] },
      ],
      service: { kind: service, hoursAgo },
      climate: { nowC, ...(fall !== undefined && { lastFillC: nowC + fall }), altitudeM: 0 },
      ...(known && {
        sensors: wheels.map(({ wheel, id, registration }) => ({
          // What is on file is of before the work: of the wheels that came off, or of the sensor that was there.
          id:
            set !== 'own' || (registration === 'unregistered' && service === 'sensor-replaced')
              ? newId()
              : id,
          wheel,
          ...(ageYears !== undefined && { ageYears }),
        })),
      }),
      ...(otherIds && { otherSets: [{ label: 'winter', ids: otherIds }] }),
      observations: [],
    },
  };
  if (indirect) for (const wheel of wheels) wheel.oddRadius = chance.is(rate('odd', world.indirect.odd));
  if (world.befell) befall(car, world.befell, chance, arrivesAt);
  return car;
}

function drawNever(): never {
  throw new RangeError('every position has a wheel');
}

interface WheelDraw {
  wheel: Position;
  placardKPa: number;
  rate: (figure: string, base: number) => number;
  ageYears: number | undefined;
  id: string;
  cooledBy: number | undefined;
  nowC: number;
}

function drawWheel(
  chance: Chance,
  world: World,
  { wheel, placardKPa, rate, ageYears, id, cooledBy, nowC }: WheelDraw,
): TrueWheel {
  const old = Math.max(0, (ageYears ?? 4) - 6);
  const dead = chance.is(rate('dead', world.wheel.dead + old * world.wheel.deadPerYearOver6));
  const absent = !dead && chance.is(rate('absent', world.wheel.absent));
  const leaking = chance.is(rate('leaking', world.wheel.leaking));
  const registration = chance.is(rate('unregistered', world.wheel.unregistered))
    ? 'unregistered'
    : chance.is(rate('mistyped', world.wheel.mistyped))
      ? 'mistyped'
      : 'registered';
  const low = leaking ? chance.is(0.7) : chance.is(rate('low', world.wheel.low));
  const cooled = cooledBy !== undefined && !low;
  const filled = low
    ? chance.between(0.15, 0.95) * placardKPa
    : chance.is(rate('slack', world.wheel.slack))
      ? placardKPa - chance.between(6, 45)
      : chance.is(rate('over', world.wheel.over))
        ? placardKPa + chance.between(10, 120)
        : chance.normal(placardKPa, 4);
  const isOff = chance.is(rate('inaccurate', world.wheel.inaccurate));
  return {
    wheel,
    placardKPa,
    kPa: cooled
      ? atTemperature({ kPa: chance.normal(placardKPa, 4), celsius: nowC + cooledBy, altitudeM: 0 }, nowC)
      : Math.max(0, filled),
    leaking,
    cooled,
    id,
    sensor: dead ? 'dead' : absent ? 'absent' : 'alive',
    ending: chance.is(rate('ending', world.wheel.ending + old * 0.04)),
    wrongType: chance.is(rate('wrongType', world.wheel.wrongType)),
    intermittent: chance.is(rate('intermittent', world.wheel.intermittent)),
    offsetKPa: isOff
      ? (chance.is(0.5) ? 1 : -1) * chance.between(12, 70)
      : chance.normal(0, world.seen.sensorSd),
    stuckKPa: isOff && chance.is(world.wheel.stuck) ? drawStuck(chance, placardKPa) : undefined,
    registration,
    oddRadius: false,
  };
}

/** Where a sensor stands still: mostly at what its tire once had, else at anything. */
const drawStuck = (chance: Chance, placardKPa: number): number =>
  Math.max(0, chance.is(0.65) ? chance.normal(placardKPa, 14) : chance.between(0, 600));

function drawSet(chance: Chance, { wholeSets }: World, service: Service['kind']): TrueCar['set'] {
  const of =
    service === 'wheels-swapped' || service === 'sensor-replaced' ? wholeSets[service] : wholeSets.none;
  const share = chance.share();
  const [learned, bare] = [of['not-learned'], of['without-sensors']];
  if (share < learned) return 'not-learned';
  if (share < learned + bare) return 'without-sensors';
  return share < learned + bare + of['another-family'] ? 'another-family' : 'own';
}

/** One cause for all wheels. */
function putOn(wheel: TrueWheel, set: WholeSet): void {
  switch (set) {
    case 'not-learned':
      wheel.registration = 'unregistered';
      break;
    case 'without-sensors':
      wheel.sensor = 'absent';
      break;
    case 'another-family':
      wheel.wrongType = true;
      wheel.registration = 'unregistered';
      break;
  }
}

/** After a rotation mostly front to rear; else mostly two wheels exchanged. */
function drawOrder(chance: Chance, rotated: boolean): number[] {
  const orders = {
    straight: [3, 2, 1, 0],
    across: [3, 2, 0, 1],
    cross: [2, 3, 0, 1],
    fronts: [1, 0, 2, 3],
    rears: [0, 1, 3, 2],
    left: [3, 1, 2, 0],
    right: [0, 2, 1, 3],
  };
  return rotated
    ? chance.weighted(
        [
          { item: orders.straight, weight: 0.55 },
          { item: orders.across, weight: 0.2 },
          { item: orders.cross, weight: 0.1 },
          { item: orders.left, weight: 0.15 },
        ],
        orders.straight,
      )
    : chance.oneOf([orders.fronts, orders.rears, orders.left, orders.right, orders.straight]);
}

/** What the car holds for a wheel: its ID, its ID with a slip, another one, or nothing. */
function heldFor(chance: Chance, wheel: TrueWheel, newId: () => string): string | null {
  if (wheel.sensor === 'absent') return chance.is(0.7) ? null : newId();
  switch (wheel.registration) {
    case 'registered':
      return wheel.id;
    case 'unregistered':
      return chance.is(0.15) ? null : newId();
    case 'mistyped':
      return slipped(chance, wheel.id);
  }
}

function slipped(chance: Chance, id: string): string {
  const at = Math.floor(chance.share() * id.length);
  const digit = id[at] ?? '0';
  const next = id[at + 1];
  const like: Record<string, string> = {
    B: '8',
    8: 'B',
    D: '0',
    0: 'D',
    5: '6',
    6: '5',
    1: '7',
    7: '1',
    E: '3',
    3: 'E',
  };
  const change = chance.share();
  if (change < 0.2 && next !== undefined && next !== digit)
    return id.slice(0, at) + next + digit + id.slice(at + 2);
  if (change < 0.32) return id.slice(0, at) + id.slice(at + 1);
  if (change < 0.4) return id.slice(0, at) + digit + id.slice(at);
  const other = like[digit] ?? ((Number.parseInt(digit, 16) + 1) % 16).toString(16).toUpperCase();
  return id.slice(0, at) + other + id.slice(at + 1);
}

/** Whether the car can hear a wheel's sensor at all. */
export const canHear = (car: TrueCar, { sensor, wrongType, registration }: TrueWheel): boolean =>
  sensor === 'alive' && !wrongType && registration === 'registered' && !car.receiverFault;
