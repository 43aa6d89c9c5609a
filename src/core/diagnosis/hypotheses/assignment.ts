import type { Reply } from '../../job';
import { clearlyStrongerDb } from '../../ledger';
import type { Evidence, WheelEvidence } from '../evidence';
import { model } from '../model';
import { normalDensity } from '../../normal';
import type { Priors } from '../learning';

/** Which reply is which wheel's own sensor: one way to read the scans, with its weight. */
export interface Assignment {
  /** By wheel, in the order of the evidence; undefined: none of its replies, or it had none. */
  own: (Reply | undefined)[];
  weight: number;
  /** By wheel: the reply one would take for its sensor is another wheel's. */
  misheard: boolean[];
  /** By wheel: two sensors send this one ID. */
  twin: boolean[];
}

/** So many replies of one wheel are told apart; weaker ones beyond are a neighbour's. */
const mostReplies = 3;

/**
 * All ways to read the scans. A wheel whose single reply is heard, held and filed nowhere else is that
 * reply's; elsewhere a tool may have heard a neighbour, and every way is weighed.
 */
export function assignmentsOf({ context, wheels, positions }: Evidence, priors: Priors): Assignment[] {
  const placeOf = new Map(wheels.map(({ wheel }, place) => [wheel, place]));
  const heldAt = positions.flatMap(({ position, held }) =>
    held == null ? [] : [{ place: placeOf.get(position), id: held }],
  );
  const filedAt = context.records.flatMap(({ id, wheel }) =>
    wheel ? [{ place: placeOf.get(wheel), id }] : [],
  );
  const known = [...heldAt, ...filedAt];
  const heard = wheels.map(({ replies }) => distinct(replies));
  const choices = wheels.map((wheel, place): (Reply | undefined)[] => {
    const replies = (heard[place] ?? []).slice(0, mostReplies);
    if (!wheel.monitored || replies.length === 0) return [replies[0]];
    const elsewhere = replies.some(
      ({ id }) =>
        known.some((other) => other.place !== place && other.id === id) ||
        wheels.some((other) => other !== wheel && other.replies.some((reply) => reply.id === id)),
    );
    return replies.length > 1 || elsewhere ? [...replies, undefined] : replies;
  });
  return product(choices).map((own) => weigh(own, wheels, heard, known, filedAt, priors));
}

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

function weigh(
  own: (Reply | undefined)[],
  wheels: readonly WheelEvidence[],
  heard: readonly (readonly Reply[])[],
  known: readonly { place: number | undefined; id: string }[],
  filed: readonly { place: number | undefined; id: string }[],
  priors: Priors,
): Assignment {
  const { replies: figures, answers } = model;
  let weight = 1;
  const ids = own.map((reply) => reply?.id);
  wheels.forEach((wheel, place) => {
    const id = ids[place];
    if (id !== undefined) {
      const match = 16 ** Math.min(12, id.length);
      if (ids.indexOf(id) < place) weight *= figures.twins * match;
      const file = filed.find((record) => record.id === id);
      // Where a record has this sensor, it is there, or it moved since.
      if (file)
        weight *=
          match * (file.place === place ? model.held.recordHolds : priors.of['positions-swapped'] / 2);
    }
    const replies = heard[place] ?? [];
    if (replies.length === 0) return;
    for (const reply of replies) {
      if (reply.id !== id) weight *= neighbourWeight(reply, place, own, ids, known);
      else if (replies.length === 1) weight *= 1 - figures.neighbour - figures.stranger;
    }
    if (id === undefined && !wheel.monitored) weight *= 1 - answers.pulsed;
  });
  return {
    own,
    weight,
    misheard: heard.map((replies, place) => isMisheard(replies, ids[place])),
    twin: ids.map((id, place) => id !== undefined && ids.some((other, at) => at !== place && other === id)),
  };
}

/** A reply that is not the wheel's own: of a wheel beside it, whose pressure it then tells, or of another car. */
function neighbourWeight(
  reply: Reply,
  place: number,
  own: (Reply | undefined)[],
  ids: (string | undefined)[],
  known: readonly { place: number | undefined; id: string }[],
): number {
  const { replies: figures, noise } = model;
  const heard = reply.id;
  const match = 16 ** Math.min(12, heard.length);
  const any = 1 / noise.anyKPa;
  const strength =
    reply.rssiDbm === undefined
      ? 1
      : normalDensity(reply.rssiDbm - figures.neighbourDbm.mean, figures.neighbourDbm.sd ** 2);
  const from = ids.findIndex((id, at) => at !== place && id === heard);
  if (from >= 0) {
    const there = own[from]?.kPa;
    const pressure =
      reply.kPa == null
        ? 1
        : there == null
          ? any
          : normalDensity(reply.kPa - there, noise.sameSensorKPa ** 2) + any / 100;
    return figures.neighbour * strength * pressure * match;
  }
  const unscanned = known.some(
    (other) => other.place !== place && other.id === heard && ids[other.place ?? -1] === undefined,
  );
  const pressure = reply.kPa == null ? 1 : any;
  return unscanned ? figures.neighbour * strength * pressure * match : figures.stranger * strength * pressure;
}

/** The reply that stands out is not the wheel's own; or none stands out, and the try says nothing. */
function isMisheard([first, second]: readonly Reply[], own: string | undefined): boolean {
  if (!first) return false;
  const lead = second ? (first.rssiDbm ?? 0) - (second.rssiDbm ?? 0) : Number.POSITIVE_INFINITY;
  return lead < clearlyStrongerDb || first.id !== own;
}
