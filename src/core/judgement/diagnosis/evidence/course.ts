import { handledKPa } from '../../../job/history';
import { isLetOut } from '../../../job/history/let-out';
import { atWheel, altitudeOf, type Job, type Placed, type Reply } from '../../../job';
import { lastUpTo, timelineOf } from '../../../job/nearest';
import { once } from '../../../job/once';
import { strongest, type Ledger } from '../../../job/ledger';
import { normalFactor } from '../../../measure/regression';
import { atTemperature, kelvin } from '../../../measure/pressure';
import { canonicalId } from '../../../names/sensor-id';
import { isAboveWakeSpeed } from '../../../car/wake-speed';
import type { Position } from '../../../names/wheel';
import { model } from '../model';
import type { Context, Measured } from '.';
import { gaugeNow, isOneStop, ownGaugeOfStop, shownNow } from './pressure';

/** What one sensor said of its tire at some time, brought to now. Whatever it is off by, it is off by in all that it says. */
export interface Said extends Measured {
  ms: number;
}

/**
 * What the sensor of a wheel said over the visit, to the tool and to the car, oldest first: since air was last put
 * in or let out, the tire was repaired, or another sensor answered.
 */
export function courseOf(context: Context, job: Job, ledger: Ledger, wheel: Position): readonly Said[] {
  const known = courses(context)(job);
  const course = known.get(wheel) ?? courseFrom(context, job, ledger, wheel);
  known.set(wheel, course);
  return course;
}

/** Each is asked for once for its own wheel, and once for every other. */
type Courses = Map<Position, readonly Said[]>;
const courses = once<Context, (job: Job) => Courses>(() => once<Job, Courses>(() => new Map()));

function courseFrom(context: Context, job: Job, ledger: Ledger, wheel: Position): Said[] {
  const tries = atWheel(job, 'activation', wheel);
  const own = strongest(tries.findLast(({ seen }) => seen.replies.length > 0)?.seen.replies ?? []);
  const id = own && canonicalId(own.id);
  const byTool = tries.flatMap((attempt) => {
    const reply = strongest(attempt.seen.replies);
    return reply && canonicalId(reply.id) === id ? (saidTo(context, job, attempt, reply) ?? []) : [];
  });
  const all = [...byTool, ...byCar(context, job, ledger, wheel, id)].sort((a, b) => a.ms - b.ms);
  const handled = timelineOf([
    ...tries.filter(({ seen }) => seen.trigger === 'deflation'),
    ...(job.repairs ?? []).filter((repair) => repair.wheel === wheel).map((seen) => ({ seen })),
  ]);
  const begins = all.findLastIndex((said, at) => {
    const before = all[at - 1];
    if (!before) return true;
    const rise = said.kPa - before.kPa;
    return (
      rise > Math.max(handledKPa, normalFactor * Math.hypot(said.sdKPa, before.sdKPa)) ||
      lastUpTo(handled, said.ms) > before.ms ||
      isLetOut(job, wheel, before.ms, said.ms)
    );
  });
  return all.slice(Math.max(0, begins));
}

/** What it said to the tool, by the temperature it told with it, else by that of the gauge of the same stop. */
function saidTo(
  context: Context,
  job: Job,
  { seen }: Placed<'activation'>,
  { kPa, tempC }: Reply,
): Said | undefined {
  if (kPa == null) return undefined;
  const { replyKPa, betweenFiguresK, otherStopKPa } = model.noise;
  const { nowC, ambientKPa } = context;
  const ms = Date.parse(seen.at);
  if (tempC != null && nowC !== undefined) {
    const perK = (kPa + ambientKPa) / kelvin(tempC);
    return {
      ms,
      kPa: atTemperature({ kPa, celsius: tempC, altitudeM: altitudeOf(job) }, nowC),
      sdKPa: Math.hypot(replyKPa, perK * betweenFiguresK),
    };
  }
  const gauge = ownGaugeOfStop(job, seen.wheel, seen.at);
  return gauge
    ? { ms, kPa: kPa + gaugeNow(context, gauge).kPa - gauge.seen.kPa, sdKPa: replyKPa }
    : { ms, kPa, sdKPa: otherStopKPa };
}

/** What the car had of it: at the position that holds its ID, else at the wheel's own. */
function byCar(
  context: Context,
  job: Job,
  { registered }: Ledger,
  wheel: Position,
  id: string | undefined,
): Said[] {
  const holds = context.monitored.filter((position) => {
    const held = registered[position];
    return held != null && canonicalId(held) === id;
  });
  const position = holds[0] ?? (registered[wheel] == null || id === undefined ? wheel : undefined);
  if (position === undefined || !context.monitored.includes(position)) return [];
  return atWheel(job, 'live', position).flatMap(({ seen }) => {
    const told = isAboveWakeSpeed(job, seen.speedKmh) ? 'driving' : 'parked';
    const figure = shownNow(context, seen, told);
    return figure ? [{ ...figure, ms: Date.parse(seen.at) }] : [];
  });
}

/** By how much a tire has fallen, kPa, since its sensor agreed with this gauge reading; 0 where it has not, or cannot be told. */
export function fallenSince(course: readonly Said[], gauge: Measured & { at: string }): number {
  const there = course.findLast(({ ms, kPa }) => {
    const apart = Math.abs(kPa - gauge.kPa);
    return isOneStop(ms, Date.parse(gauge.at)) && apart <= model.inaccuracy.moreThanKPa;
  });
  const isOver = (course.at(-1)?.ms ?? 0) <= Date.parse(gauge.at);
  return there && !isOver ? fallenFrom(course, there.ms) : 0;
}

/** By how much a tire has fallen, kPa, since its sensor said something at this time; 0 where it has not, or no more than two figures may differ. */
export function fallenFrom(course: readonly Said[], ms: number): number {
  const last = course.at(-1);
  const there = course.find((said) => said.ms === ms);
  if (!last || !there) return 0;
  const fall = there.kPa - last.kPa;
  return fall > Math.max(handledKPa, normalFactor * Math.hypot(last.sdKPa, there.sdKPa)) ? fall : 0;
}
