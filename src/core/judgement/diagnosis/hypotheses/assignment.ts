import type { Reply } from '../../../job';
import { clearlyStrongerDb } from '../../../job/ledger';
import type { Context, PositionEvidence, WheelEvidence } from '../evidence';
import { model } from '../model';
import { normalDensity } from '../../../measure/normal';
import type { Priors } from '../learning';
import { zeros } from './wheel-state';

/** What was seen of a wheel that the ways to read its scan rest on; of the gauge only whether the scan is doubtful. */
export type ScanSeen = Pick<WheelEvidence, 'wheel' | 'monitored' | 'gauge' | 'replies'>;
/** What the car says of a position that they rest on. */
export type HeldSeen = Pick<PositionEvidence, 'position' | 'held'>;
/** All that they rest on. */
interface ScansSeen {
  context: Context;
  wheels: readonly ScanSeen[];
  positions: readonly HeldSeen[];
}

/** Which reply is which wheel's own sensor: one way to read the scans, with its weight. */
export interface Assignment {
  /** By wheel, in the order of the evidence: which of its replies, from 1; 0: none of them, or it had none. */
  own: readonly number[];
  /** By wheel: at which positions the ID that is held is another wheel's, a bit each. */
  elsewhere: readonly number[];
  weight: number;
  /** The IDs that are taken for the wheels' own, each once. */
  heard: readonly string[];
  /** By wheel: the reply one would take for its sensor is another wheel's. */
  misheard: boolean[];
  /** By wheel: two sensors send this one ID. */
  twin: boolean[];
}

/** So many replies of one wheel are told apart; weaker ones beyond are a neighbour's. */
const mostReplies = 3;

/**
 * All ways to read the scans. A single reply that is heard, held and filed nowhere else, and came as strong and
 * with about the pressure of the gauge, is the wheel's own; elsewhere a tool may have heard a neighbour, and every
 * way is weighed.
 */
export function assignmentsOf(evidence: ScansSeen, priors: Priors): Assignment[] {
  const places = knownPlaces(evidence);
  const heard = evidence.wheels.map(({ replies }) => distinct(replies));
  const choices = evidence.wheels.map((wheel, place): (Reply | undefined)[] => {
    const replies = (heard[place] ?? []).slice(0, mostReplies);
    if (!wheel.monitored || replies.length === 0) return [replies[0]];
    const elsewhere = replies.some(
      ({ id }) =>
        places.of(id).some((other) => other !== place) ||
        evidence.wheels.some((other) => other !== wheel && other.replies.some((reply) => reply.id === id)),
    );
    const isFiledHere = places.of(replies[0]?.id ?? '').includes(place);
    return replies.length > 1 || elsewhere || (!isFiledHere && isDoubtful(wheel))
      ? [...replies, undefined]
      : replies;
  });
  const chosen = new Set(choices.flatMap((options) => options.flatMap((reply) => reply?.id ?? [])));
  const scans = evidence.wheels.map(({ monitored }, place) =>
    scanOf(heard[place] ?? [], monitored, place, chosen, places),
  );
  return product(choices).map((own): Assignment => {
    const ids = own.map((reply) => reply?.id);
    return {
      own: own.map((reply, place) =>
        reply ? (evidence.wheels[place]?.replies.indexOf(reply) ?? -1) + 1 : 0,
      ),
      heard: [...new Set(ids.filter((id) => id !== undefined))],
      elsewhere: ids.map((_, place) => elsewhereOf(place, ids, evidence.positions)),
      ...weigh(own, ids, scans, places, priors),
    };
  });
}

function elsewhereOf(
  place: number,
  ids: readonly (string | undefined)[],
  positions: readonly HeldSeen[],
): number {
  const isElsewhere = (held: string) => ids.some((id, other) => other !== place && id === held);
  return positions.reduce(
    (bits, { held }, at) => bits | (held != null && isElsewhere(held) ? 1 << at : 0),
    0,
  );
}

/** Nothing was heard of any of so many wheels. */
export const heardNothing = (count: number): Assignment => ({
  own: zeros(count),
  elsewhere: zeros(count),
  weight: 1,
  heard: [],
  misheard: Array.from({ length: count }, () => false),
  twin: Array.from({ length: count }, () => false),
});

/** A reply came from farther away, or speaks of another pressure than the gauge read. */
export function isDoubtful({ replies: [reply], gauge }: Pick<WheelEvidence, 'replies' | 'gauge'>): boolean {
  if (!reply) return false;
  const isWeak = reply.rssiDbm !== undefined && reply.rssiDbm <= model.replies.doubtfulDbm;
  const isOther =
    gauge !== undefined &&
    reply.kPa != null &&
    Math.abs(reply.kPa - gauge.kPa) > model.inaccuracy.moreThanKPa + 2 * gauge.sdKPa;
  return isWeak || isOther;
}

/** Where IDs belong: the places of the wheels the car, and the records, have each at; undefined: a wheel that is not on the car. */
interface KnownPlaces {
  of: (id: string) => readonly (number | undefined)[];
  /** By the records alone, the first one that names it. */
  filed: (id: string) => { place: number | undefined } | undefined;
}

function knownPlaces({ context, wheels, positions }: ScansSeen): KnownPlaces {
  const placeOf = new Map(wheels.map(({ wheel }, place) => [wheel, place]));
  const known = new Map<string, (number | undefined)[]>();
  const filed = new Map<string, { place: number | undefined }>();
  const add = (id: string, place: number | undefined) => {
    const places = known.get(id);
    if (places) places.push(place);
    else known.set(id, [place]);
  };
  for (const { position, held } of positions) if (held != null) add(held, placeOf.get(position));
  for (const { id, wheel } of context.records) {
    if (!wheel) continue;
    const place = placeOf.get(wheel);
    add(id, place);
    if (!filed.has(id)) filed.set(id, { place });
  }
  return { of: (id) => known.get(id) ?? nowhere, filed: (id) => filed.get(id) };
}

const nowhere: readonly undefined[] = [];

/** The strongest reply of each ID, the strongest first. */
function distinct(replies: readonly Reply[]): Reply[] {
  const strength = (reply: Reply) => reply.rssiDbm ?? model.replies.strengthDbm.sound;
  const sorted = [...replies].sort(
    (a, b) =>
      strength(b) - strength(a) ||
      // Of two as strong, whichever came first: the order of a list says nothing.
      (a.id < b.id ? -1 : Number(a.id > b.id)) ||
      (a.kPa ?? 0) - (b.kPa ?? 0),
  );
  return sorted.filter((reply, place) => sorted.findIndex((other) => other.id === reply.id) === place);
}

function product<Item>(choices: readonly (readonly Item[])[]): Item[][] {
  return choices.reduce<Item[][]>(
    (rows, options) => rows.flatMap((row) => options.map((option) => [...row, option])),
    [[]],
  );
}

/** What one wheel's scan weighs, as far as that is the same whichever way the scans are read. */
interface Scan {
  monitored: boolean;
  count: number;
  /** The strongest; undefined: nothing was heard. */
  first: Reply | undefined;
  /** It stands out from the next. */
  isClear: boolean;
  /** Those whose weight depends on how the scans are read. */
  open: readonly Heard[];
  /** The weight of all others together: of cars that stand by. */
  strangers: number;
}

/** A reply, with what it weighs as one of another wheel. */
interface Heard {
  reply: Reply;
  /** Of its strength, for a sensor as far away as that. */
  strength: number;
  /** The other wheels it is known to belong to. */
  others: readonly (number | undefined)[];
}

function scanOf(
  replies: readonly Reply[],
  monitored: boolean,
  place: number,
  chosen: ReadonlySet<string>,
  places: KnownPlaces,
): Scan {
  const [first, second] = replies;
  const lead = second ? (first?.rssiDbm ?? 0) - (second.rssiDbm ?? 0) : Number.POSITIVE_INFINITY;
  const open: Heard[] = [];
  let strangers = 1;
  for (const reply of replies) {
    const heard = {
      reply,
      strength: strengthFactor(reply),
      others: places.of(reply.id).filter((other) => other !== place),
    };
    if (chosen.has(reply.id) || heard.others.length > 0) open.push(heard);
    else strangers *= strangerWeight(heard);
  }
  return { monitored, count: replies.length, first, isClear: lead >= clearlyStrongerDb, open, strangers };
}

function weigh(
  own: readonly (Reply | undefined)[],
  ids: readonly (string | undefined)[],
  scans: readonly Scan[],
  places: KnownPlaces,
  priors: Priors,
): Omit<Assignment, 'own' | 'elsewhere' | 'heard'> {
  const { replies: figures, answers } = model;
  let weight = 1;
  scans.forEach(({ monitored, count, open, strangers }, place) => {
    const id = ids[place];
    if (id !== undefined) {
      // The second of two that send one ID is explained by the first: the file speaks of an ID once.
      if (ids.indexOf(id) < place) weight *= figures.twins * matchOf(id);
      else {
        const file = places.filed(id);
        // Where a record has this sensor, it is there, or it moved since.
        const isThere = file?.place !== undefined && ids[file.place] === id;
        if (file)
          weight *= matchOf(id) * (isThere ? model.held.recordHolds : priors.of['positions-swapped'] / 2);
      }
    }
    if (count === 0) return;
    weight *= strangers;
    for (const heard of open) {
      if (heard.reply.id !== id) weight *= neighbourWeight(heard, place, own, ids);
      else if (count === 1) weight *= 1 - figures.neighbour - figures.stranger;
    }
    if (id === undefined && !monitored) weight *= 1 - answers.pulsed;
  });
  return {
    weight,
    // The reply that stands out is not the wheel's own; or none stands out, and the try says nothing.
    misheard: scans.map(
      ({ first, isClear }, place) => first !== undefined && !(isClear && first.id === ids[place]),
    ),
    twin: ids.map((id, place) => id !== undefined && ids.some((other, at) => at !== place && other === id)),
  };
}

/** What it is worth that an ID is this one, against a random one. */
const matchOf = (id: string): number => 16 ** Math.min(12, id.length);

const anyPressure = 1 / model.noise.anyKPa;

/** A reply that is not the wheel's own: of a wheel beside it, whose pressure it then tells, or of another car. */
function neighbourWeight(
  heard: Heard,
  place: number,
  own: readonly (Reply | undefined)[],
  ids: readonly (string | undefined)[],
): number {
  const { replies: figures, noise } = model;
  const { reply, strength, others } = heard;
  const from = ids.findIndex((id, at) => at !== place && id === reply.id);
  if (from >= 0) {
    const there = own[from]?.kPa;
    const pressure =
      reply.kPa == null
        ? 1
        : there == null
          ? anyPressure
          : normalDensity(reply.kPa - there, noise.sameSensorKPa ** 2) + anyPressure / 100;
    return figures.neighbour * strength * pressure * matchOf(reply.id);
  }
  // It is known at a wheel of which nothing else was heard.
  if (others.some((other) => ids[other ?? -1] === undefined))
    return figures.neighbour * strength * pressureOfAny(reply) * matchOf(reply.id);
  // Or it may be of any wheel of which nothing was heard yet.
  const isOpen = ids.some((id, at) => at !== place && id === undefined);
  return isOpen ? figures.neighbour * strength * pressureOfAny(reply) : strangerWeight(heard);
}

const strangerWeight = ({ reply, strength }: Heard): number =>
  model.replies.stranger * strength * pressureOfAny(reply);

const pressureOfAny = ({ kPa }: Reply): number => (kPa == null ? 1 : anyPressure);

/** Likelihood of the strength of a reply from farther away. */
const strengthFactor = ({ rssiDbm }: Reply): number => {
  const { mean, sd } = model.replies.neighbourDbm;
  return rssiDbm === undefined ? 1 : normalDensity(rssiDbm - mean, sd ** 2);
};
