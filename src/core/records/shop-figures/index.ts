import { quantile } from 'simple-statistics';
import { recordOf, type FindingCode } from '../../catalogue/finding';
import type { Reliability } from '../../measure/reliability';
import type { Cell, Column, Table } from '../table';
import { comebackDays, isComeback, whyBack, whyWords, type ReturnFacts, type Why } from './comeback';
import { longestStepMinutes, minutesByPlace, workPlaceNames, workPlaces, type Step } from './work';
import { dayAfter, daysBetween } from '../../measure/calendar/spans';

export { comebackDays, type ReturnFacts } from './comeback';
export { longestStepMinutes, type RecordKind, type Step } from './work';

/** What a shop did in some weeks, as its manager wants to see it: counted from what was recorded, nothing guessed. */

/** A car that was handed over. */
export interface VisitFacts {
  jobId: string;
  /** The Monday of its week, by the place where it is read. */
  week: string;
  minutes: number;
  by: string;
  proved: boolean;
}

/** A part that turned out to be at fault, so many times at one kind of vehicle. */
export interface FaultCount {
  kind: string;
  was: FindingCode;
  times: number;
  /** Cars of this kind of which somebody said what it was. */
  cars: number;
}

/** A sensor that was replaced though it turned out to be in order. */
export interface NeedlessPart {
  jobId: string;
  number: number;
  wheel: string;
  part: string | null;
  by: string;
  at: string;
}

export interface GaugeDue {
  name: string;
  status: string;
  checkedAt: string | null;
}

/** What was said against what it turned out to be. */
export interface Sureness {
  visits: number;
  bars: Reliability[];
  /** Faults of which nothing was said. */
  missed: number;
}

export interface ShopFacts {
  /** Booked in, by week. */
  bookedIn: { week: string; cars: number }[];
  visits: VisitFacts[];
  steps: Step[];
  returns: ReturnFacts[];
  faults: FaultCount[];
  needless: NeedlessPart[];
  /** Sensors that were replaced. */
  fitted: number;
  gauges: GaugeDue[];
  /** Of the last visits of which somebody said what it was; null: not counted yet. */
  sureness: Sureness | null;
}

export const tableNames = [
  'weeks',
  'people',
  'minutes',
  'back',
  'faults',
  'needless',
  'sureness',
  'gauges-due',
] as const;
export type TableName = (typeof tableNames)[number];

/** All of it as tables, in the order they are shown. */
export function tablesOf(facts: ShopFacts): Record<TableName, Table> {
  const returns = facts.returns.map((one) => ({ ...one, why: whyBack(one) }));
  return {
    weeks: weeksTable(facts, returns),
    people: peopleTable(facts, returns),
    minutes: minutesTable(facts),
    back: returnsTable(returns),
    faults: faultsTable(facts),
    needless: needlessTable(facts),
    sureness: surenessTable(facts),
    'gauges-due': gaugesTable(facts),
  };
}

type Returned = ReturnFacts & { why: Why };

const visitColumns: Column[] = [
  { label: 'handed over' },
  { label: 'minutes in the shop: half took less' },
  { label: 'nine of ten took less' },
  { label: 'proved, %', digits: 0 },
  { label: `back in ${comebackDays} days` },
];

function visitCells(visits: readonly VisitFacts[], returns: readonly Returned[]): Cell[] {
  const ids = new Set(visits.map(({ jobId }) => jobId));
  const minutes = visits.map((visit) => visit.minutes);
  const within = (share: number) => (minutes.length > 0 ? Math.round(quantile(minutes, share)) : null);
  return [
    visits.length,
    within(0.5),
    within(0.9),
    visits.length > 0 ? (100 * visits.filter(({ proved }) => proved).length) / visits.length : null,
    returns.filter(({ first, why }) => ids.has(first.jobId) && isComeback(why)).length,
  ];
}

function weeksTable({ bookedIn, visits }: ShopFacts, returns: readonly Returned[]): Table {
  const booked = new Map(bookedIn.map(({ week, cars }) => [week, cars]));
  const weeks = everyWeek([...booked.keys(), ...visits.map(({ week }) => week)]);
  return {
    name: 'weeks',
    title: 'By week',
    columns: [{ label: 'week from' }, { label: 'booked in' }, ...visitColumns],
    rows: weeks.map((week) => [
      week,
      booked.get(week) ?? 0,
      ...visitCells(
        visits.filter((visit) => visit.week === week),
        returns,
      ),
    ]),
  };
}

/** From the first of these weeks to the last, by their first days, those between in which nothing was done too. */
function everyWeek(firstDays: readonly string[]): string[] {
  const sorted = [...firstDays].sort();
  const [first, last] = [sorted[0], sorted.at(-1)];
  if (first === undefined || last === undefined) return [];
  const weeks = Math.round(daysBetween(first, last) / 7);
  return Array.from({ length: weeks + 1 }, (_, n) => dayAfter(first, 7 * n));
}

function peopleTable({ visits }: ShopFacts, returns: readonly Returned[]): Table {
  const people = [...new Set(visits.map(({ by }) => by))].sort((a, b) => a.localeCompare(b));
  return {
    name: 'people',
    title: 'By who handed over',
    columns: [{ label: 'person' }, ...visitColumns],
    rows: people.map((person) => [
      person,
      ...visitCells(
        visits.filter(({ by }) => by === person),
        returns,
      ),
    ]),
  };
}

/** Shops of a chain side by side. */
export const shopsTable = (shops: readonly { name: string; facts: ShopFacts }[]): Table => ({
  name: 'shops',
  title: 'By shop',
  columns: [{ label: 'shop' }, { label: 'booked in' }, ...visitColumns],
  rows: shops.map(({ name, facts }) => [
    name,
    facts.bookedIn.reduce((sum, { cars }) => sum + cars, 0),
    ...visitCells(
      facts.visits,
      facts.returns.map((one) => ({ ...one, why: whyBack(one) })),
    ),
  ]),
});

/** Minutes a car, by place; what is left of its time in the shop it waited. */
function minutesTable({ steps, visits }: ShopFacts): Table {
  const cars = visits.length;
  const sums = minutesByPlace(steps);
  const worked = [...sums.values()].reduce((sum, minutes) => sum + minutes, 0);
  const all = visits.reduce((sum, { minutes }) => sum + minutes, 0);
  const row = (label: string, minutes: number): Cell[] => [
    label,
    minutes / cars,
    all > 0 ? (100 * minutes) / all : null,
  ];
  return {
    name: 'minutes',
    title: 'Minutes a car, by station',
    columns: [
      { label: 'station' },
      { label: 'minutes a car', digits: 1 },
      { label: 'of its time in the shop, %', digits: 0 },
    ],
    rows:
      cars === 0
        ? []
        : [
            ...workPlaces.map((place) => row(workPlaceNames[place], sums.get(place) ?? 0)),
            row(`Nothing recorded for over ${longestStepMinutes} minutes`, Math.max(0, all - worked)),
          ],
  };
}

const returnsTable = (returns: readonly Returned[]): Table => ({
  name: 'back',
  title: `Back within ${comebackDays} days`,
  columns: [
    { label: 'vehicle' },
    { label: 'plate' },
    { label: 'job' },
    { label: 'handed over by' },
    { label: 'back as job' },
    { label: 'after days', digits: 0 },
    { label: 'why' },
    { label: 'comeback' },
  ],
  rows: returns.map(({ label, plate, first, second, why }) => [
    label,
    plate,
    first.number,
    first.by,
    second.number,
    daysBetween(first.handedOverAt, second.openedAt),
    whyWords(why),
    isComeback(why) ? 'yes' : 'no',
  ]),
  links: returns.map(({ second }) => `/jobs/${second.jobId}`),
});

const faultsTable = ({ faults }: ShopFacts): Table => ({
  name: 'faults',
  title: 'What it turned out to be, by kind of vehicle',
  columns: [{ label: 'vehicle' }, { label: 'fault' }, { label: 'times' }, { label: 'cars it was said of' }],
  rows: [...faults]
    .sort((a, b) => b.cars - a.cars || a.kind.localeCompare(b.kind) || b.times - a.times)
    .map(({ kind, was, times, cars }) => [kind, recordOf(was).title, times, cars]),
});

const needlessTable = ({ needless }: ShopFacts): Table => ({
  name: 'needless',
  title: 'Sensors replaced that turned out in order',
  columns: [
    { label: 'job' },
    { label: 'day' },
    { label: 'wheel' },
    { label: 'part' },
    { label: 'fitted by' },
  ],
  rows: needless.map(({ number, at, wheel, part, by }) => [number, at.slice(0, 10), wheel, part, by]),
  links: needless.map(({ jobId }) => `/jobs/${jobId}/sheet`),
});

const surenessTable = ({ sureness }: ShopFacts): Table => ({
  name: 'sureness',
  title: 'How often a finding was true, by how sure it was',
  columns: [{ label: 'said, %', digits: 0 }, { label: 'true, %', digits: 0 }, { label: 'findings' }],
  rows: (sureness?.bars ?? [])
    .filter(({ claims }) => claims > 0)
    .map(({ meanChance, shareTrue, claims }) => [100 * meanChance, 100 * shareTrue, claims]),
});

const gaugesTable = ({ gauges }: ShopFacts): Table => ({
  name: 'gauges-due',
  title: 'Gauges whose check is due',
  columns: [{ label: 'gauge' }, { label: 'how it stands' }, { label: 'checked last' }],
  rows: gauges.map(({ name, status, checkedAt }) => [name, status, checkedAt?.slice(0, 10) ?? null]),
});
