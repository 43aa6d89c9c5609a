import { curve } from '../../core/sensor/life';
import { atTemperature, pressureToSet } from '../../core/measure/pressure';
import type { Header, Observation } from '../../core/job';
import { roadWheels, type Position } from '../../core/names/wheel';
import { chanceFrom, type Chance } from '../chance';
import { customers, kinds, type Kind } from './names';
import { dayMs, yearMs } from '../../core/measure/calendar/spans';

/**
 * Years of a busy chain, drawn by a seed: cars that come with the seasons, two sets of wheels for half of them, sensors that
 * age and end by the curve of their life, tires that lose what rubber loses and now and then leak. For benches, and for
 * trying the app with a memory; nothing is judged or fitted by it.
 */
export interface SimulatedVehicle {
  id: string;
  vin: string;
  plate: string;
  label: string;
  modelYear: number;
  profile: string | null;
  tpms: Header['vehicle']['tpms'];
  placard: NonNullable<Header['placard']>;
  customer: string;
  sets: SimulatedSet[];
  visits: SimulatedVisit[];
}

interface SimulatedSet {
  id: string;
  label: string;
  season: 'summer' | 'winter' | 'all-season';
  isOn: boolean;
  rack: string | null;
  /** `endsMs`: when the battery of the sensor will have ended. */
  wheels: { wheel: Position; sensorId: string; newOn: string; endsMs: number }[];
}

interface SimulatedVisit {
  id: string;
  key: string;
  openedAt: Date;
  handedOverAt: Date;
  by: string;
  header: Header;
  observations: { key: string; observation: Observation }[];
  /** What a part turned out to be, where somebody had it in hand. */
  turnedOut: {
    key: string;
    part: 'sensor' | 'tire';
    wheel: Position;
    was: 'sensor-silent' | 'tire-leaking';
  }[];
}

export interface Asked {
  vehicles: number;
  seed: number;
  from: Date;
  to: Date;
  /** Who books in and hands over. */
  people: readonly string[];
}

/** A car comes so often a year on average. */
const visitsPerYear = 0.36;
/** One tire of a car leaks between two visits with this chance. */
const leaks = 0.03;
/** What rubber loses in a month, kPa. */
const seepsPerMonthKPa = 9;

/** Vehicle by vehicle; the same for the same seed. */
export function* yearsOf({ vehicles, seed, ...asked }: Asked): Generator<SimulatedVehicle> {
  for (let n = 0; n < vehicles; n += 1) yield vehicleOf(chanceFrom(seed * 1_000_003 + n), n, asked);
}

type Life = Omit<Asked, 'vehicles' | 'seed'>;

function vehicleOf(chance: Chance, n: number, { from, to, people }: Life): SimulatedVehicle {
  const kind = pick(chance, kinds);
  const firstMs = from.getTime() + chance.share() * (to.getTime() - from.getTime()) * 0.7;
  const builtMs = firstMs - chance.share() * 6 * yearMs;
  const modelYear = new Date(builtMs).getUTCFullYear();
  const id = uuid(chance);
  const label = `${kind.label}, ${pick(chance, ['grey', 'white', 'black', 'blue', 'red', 'green', 'silver'])}`;
  const plate = `${letters(chance, 3)} ${String(100 + Math.floor(chance.share() * 9900))}`;
  const vin = `0HA${letters(chance, 2)}${digits(chance, 1)}${letters(chance, 1)}9${digits(chance, 1)}H${String(n).padStart(7, '0')}`;
  const customer = `${pick(chance, customers.first)} ${pick(chance, customers.last)}`;
  const placard = [
    { position: 'front' as const, size: kind.size, coldKPa: kind.frontKPa },
    { position: 'rear' as const, size: kind.size, coldKPa: kind.rearKPa },
  ];
  const sets = setsOf(chance, kind, builtMs);
  const car = { label, plate, vin, modelYear, customer, placard, kind };
  const visits: SimulatedVisit[] = [];
  let on = 0;
  let lastMs = firstMs;
  for (
    let atMs = firstMs;
    atMs < to.getTime();
    atMs = sooner(chance, sets[on], lastMs, nextVisit(chance, lastMs))
  ) {
    const isSwap = sets.length > 1 && visits.length > 0 && chance.share() < 0.7;
    visits.push(
      visitOf(chance, { car, sets, on, atMs, sinceMs: atMs - lastMs, isSwap, by: pick(chance, people) }),
    );
    if (isSwap) on = 1 - on;
    lastMs = atMs;
  }
  return {
    id,
    vin,
    plate,
    label,
    modelYear,
    profile: null,
    tpms: tpmsOf(kind),
    placard,
    customer,
    sets: sets.map((set, at) => ({
      ...set,
      isOn: at === on,
      rack: at === on ? null : `${letters(chance, 1)} ${n % 997}-${n}`,
    })),
    visits,
  };
}

interface Car {
  label: string;
  plate: string;
  vin: string;
  modelYear: number;
  customer: string;
  placard: NonNullable<Header['placard']>;
  kind: Kind;
}

const tpmsOf = ({ family, frequencyMHz, locates }: Kind): Header['vehicle']['tpms'] => ({
  kind: 'direct',
  positions: [...roadWheels],
  frequencyMHz,
  family,
  idDigits: 8,
  locates,
  regulation: 'UN',
});

function setsOf(chance: Chance, kind: Kind, builtMs: number): SimulatedSet[] {
  const set = (label: string, season: SimulatedSet['season'], newMs: number): SimulatedSet => ({
    id: uuid(chance),
    label,
    season,
    isOn: false,
    rack: null,
    wheels: roadWheels.map((wheel) => ({
      wheel,
      sensorId: kind.prefix + digits16(chance, 6),
      newOn: dayOf(newMs),
      endsMs: endOf(chance, newMs),
    })),
  });
  return chance.share() < 0.5
    ? [set('summer', 'summer', builtMs), set('winter', 'winter', builtMs + yearMs * 0.4)]
    : [set('on the car', 'all-season', builtMs)];
}

interface VisitFacts {
  car: Car;
  sets: SimulatedSet[];
  on: number;
  atMs: number;
  sinceMs: number;
  isSwap: boolean;
  by: string;
}

function visitOf(chance: Chance, { car, sets, on, atMs, sinceMs, isSwap, by }: VisitFacts): SimulatedVisit {
  const set = sets[isSwap ? 1 - on : on] ?? sets[0];
  if (!set) throw new Error('a car has a set of wheels');
  const openedAt = new Date(atMs);
  const handedOverAt = new Date(atMs + (35 + chance.share() * 80) * 60_000);
  const nowC = Math.round(outdoorC(openedAt) + (chance.share() - 0.5) * 8);
  const key = uuid(chance);
  const silent = set.wheels.filter(({ endsMs }) => endsMs <= atMs);
  const leaking = chance.share() < leaks ? pick(chance, roadWheels) : undefined;
  const lostKPa = Math.min(60, (seepsPerMonthKPa * sinceMs) / (30 * dayMs));
  const observations: Observation[] = [];
  let minute = 4;
  const at = () => new Date(atMs + (minute += 1) * 60_000).toISOString();
  observations.push({
    kind: 'lamp',
    at: at(),
    state: silent.length > 0 ? 'flash-then-steady' : leaking || lostKPa > 50 ? 'steady' : 'off',
    bulbCheck: true,
  });
  for (const wheel of roadWheels) {
    const placardKPa = wheel === 'LF' || wheel === 'RF' ? car.kind.frontKPa : car.kind.rearKPa;
    const setKPa = pressureToSet(placardKPa, outdoorC(new Date(atMs - sinceMs)), nowC, 300);
    const kPa = Math.max(
      60,
      setKPa - lostKPa - (wheel === leaking ? 60 + chance.share() * 60 : 0) + (chance.share() - 0.5) * 6,
    );
    observations.push({ kind: 'gauge', at: at(), wheel, kPa: Math.round(kPa), tire: 'cold' });
  }
  for (const { wheel, sensorId } of set.wheels) {
    const isSilent = silent.some((one) => one.wheel === wheel);
    const kPa = Math.round(atTemperature({ kPa: 225, celsius: nowC, altitudeM: 300 }, nowC + 2));
    observations.push({
      kind: 'activation',
      at: at(),
      wheel,
      trigger: 'pulsed',
      replies: isSilent ? [] : [{ id: sensorId, kPa, tempC: nowC + 1, battery: 'ok' }],
    });
  }
  observations.push({
    kind: 'registry',
    at: at(),
    entries: set.wheels.map(({ wheel, sensorId }) => ({ wheel, id: sensorId })),
    codes: silent.length > 0 ? [{ code: 'C1A63', status: 'active' }] : [],
  });
  const turnedOut: SimulatedVisit['turnedOut'] = [
    ...silent.map(({ wheel }) => ({
      key: uuid(chance),
      part: 'sensor' as const,
      wheel,
      was: 'sensor-silent' as const,
    })),
    ...(leaking
      ? [{ key: uuid(chance), part: 'tire' as const, wheel: leaking, was: 'tire-leaking' as const }]
      : []),
  ];
  const header = headerOf({
    car,
    sets,
    set,
    key,
    openedAt,
    handedOverAt,
    by,
    nowC,
    isSwap,
    isUnproved: chance.share() < 0.06,
  });
  // Those that ended are replaced: the set goes on with new ones.
  for (const wheel of silent) {
    wheel.sensorId = car.kind.prefix + digits16(chance, 6);
    wheel.newOn = dayOf(atMs);
    wheel.endsMs = endOf(chance, atMs);
  }
  return {
    id: uuidAt(chance, atMs),
    key,
    openedAt,
    handedOverAt,
    by,
    header,
    observations: observations.map((observation) => ({ key: uuid(chance), observation })),
    turnedOut,
  };
}

function headerOf({
  car,
  sets,
  set,
  key,
  openedAt,
  handedOverAt,
  by,
  nowC,
  isSwap,
  isUnproved,
}: {
  car: Car;
  sets: SimulatedSet[];
  set: SimulatedSet;
  key: string;
  openedAt: Date;
  handedOverAt: Date;
  by: string;
  nowC: number;
  isSwap: boolean;
  isUnproved: boolean;
}): Header {
  const { label, plate, vin, modelYear, placard, kind, customer } = car;
  const ageOf = (newOn: string) => Math.round(((openedAt.getTime() - Date.parse(newOn)) / yearMs) * 10) / 10;
  return {
    format: 'hacienda.job/1',
    vehicle: { label, plate, vin, modelYear, tpms: tpmsOf(kind) },
    placard,
    service: { kind: isSwap ? 'wheels-swapped' : 'none', ...(isSwap && { hoursAgo: 0 }) },
    climate: { nowC, altitudeM: 300, fillPolicy: 'ambient' },
    sensors: set.wheels.map(({ wheel, sensorId, newOn }) => ({
      id: sensorId,
      wheel,
      ageYears: Math.max(0, ageOf(newOn)),
    })),
    otherSets: sets
      .filter((other) => other !== set)
      .map((other) => ({ label: other.label, ids: other.wheels.map(({ sensorId }) => sensorId) })),
    visit: {
      key,
      customer,
      openedAt: openedAt.toISOString(),
      openedBy: by,
      handedOverAt: handedOverAt.toISOString(),
      handedOverBy: by,
      ...(isUnproved && { unproved: 'The customer could not wait for the drive.' }),
    },
  };
}

/** When a battery that is new now ends, by the curve of its life. */
const endOf = (chance: Chance, newMs: number): number =>
  newMs + curve.scaleYears.value * yearMs * (-Math.log(1 - chance.share())) ** (1 / curve.shape.value);

const dayOf = (ms: number): string => new Date(ms).toISOString().slice(0, 10);

/** A lamp that came on brings a car within days, before it would have come. */
function sooner(chance: Chance, set: SimulatedSet | undefined, lastMs: number, next: number): number {
  const ends = Math.min(...(set?.wheels ?? []).map(({ endsMs }) => endsMs));
  return ends < next ? Math.max(lastMs + dayMs, ends + (2 + chance.share() * 10) * dayMs) : next;
}

/** Cars come for other wheels, in March and April and in October and November, more than else. */
function nextVisit(chance: Chance, lastMs: number): number {
  const waits = -Math.log(1 - chance.share()) / visitsPerYear;
  const next = new Date(lastMs + Math.max(20 * dayMs, waits * yearMs));
  const month = next.getUTCMonth();
  const season = month < 2 ? 2 : month < 9 ? 9 : 14;
  const isSeason = month === 2 || month === 3 || month === 9 || month === 10;
  const at =
    isSeason || chance.share() < 0.5
      ? next.getTime()
      : Date.UTC(next.getUTCFullYear(), season, 1 + Math.floor(chance.share() * 60));
  // In the working day.
  return Math.floor(at / dayMs) * dayMs + (8 + chance.share() * 9) * 3_600_000;
}

/** Outdoors over the year, °C: a place with a winter. */
const outdoorC = (at: Date): number =>
  9 - 13 * Math.cos(((at.getUTCMonth() + at.getUTCDate() / 30 - 0.7) / 12) * 2 * Math.PI);

function pick<Item>(chance: Chance, items: readonly Item[]): Item {
  const item = items[Math.floor(chance.share() * items.length)];
  if (item === undefined) throw new Error('there is nothing to pick from');
  return item;
}

const from16 = '0123456789ABCDEF';
const fromLetters = 'ABCDEFGHJKLMNPRSTVWXYZ';
const drawn = (chance: Chance, alphabet: string, count: number): string =>
  Array.from({ length: count }, () => alphabet[Math.floor(chance.share() * alphabet.length)]).join('');
const digits16 = (chance: Chance, count: number) => drawn(chance, from16, count);
const digits = (chance: Chance, count: number) => drawn(chance, '0123456789', count);
const letters = (chance: Chance, count: number) => drawn(chance, fromLetters, count);

/** A UUID (version 4) drawn by chance. */
function uuid(chance: Chance): string {
  const hex = digits16(chance, 32).toLowerCase();
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-4${hex.slice(13, 16)}-8${hex.slice(17, 20)}-${hex.slice(20)}`;
}

/** A UUID (version 7) of a moment, drawn by chance: rows of one time lie together. */
function uuidAt(chance: Chance, ms: number): string {
  const time = Math.floor(ms).toString(16).padStart(12, '0');
  const hex = digits16(chance, 20).toLowerCase();
  return `${time.slice(0, 8)}-${time.slice(8)}-7${hex.slice(0, 3)}-8${hex.slice(3, 6)}-${hex.slice(6, 18)}`;
}
