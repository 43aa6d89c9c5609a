import type { Trigger } from '../../../names/kinds';
import { readingThatCounts } from '../../../tire/gauge';
import { handledKPa, softSince } from '../../../job/history';
import { isLetOut } from '../../../job/history/let-out';
import {
  allOf,
  altitudeOf,
  atWheel,
  latest,
  type Job,
  type Observation,
  type Placed,
  type Reply,
} from '../../../job';
import { strongest, type Ledger } from '../../../job/ledger';
import { standingOf } from '../../../tire/standing';
import { type Lines } from '../../../tire/thresholds/lines';
import { atTemperature } from '../../../measure/pressure';
import { canonicalId } from '../../../names/sensor-id';
import { isSpareAt } from '../../../job/spare';
import { roadWheels, type Position } from '../../../names/wheel';
import { model } from '../model';
import type { Context, WheelEvidence } from '.';
import { courseOf, fallenFrom, fallenSince, type Said } from './course';
import { leakLikelihood } from './leak';
import { gaugeNow, inAll, isOneStop } from './pressure';
import { methodOf } from '../../../relearn/method';
import { dayMs } from '../../../measure/calendar/spans';

const unknownLines: Lines = {
  low: Number.NEGATIVE_INFINITY,
  off: Number.NEGATIVE_INFINITY,
  short: Number.NEGATIVE_INFINITY,
  over: Number.POSITIVE_INFINITY,
};

/** Of one wheel: its gauge, its sensor as the tool heard it, and what the eye saw. */
export function wheelEvidence(context: Context, job: Job, ledger: Ledger, wheel: Position): WheelEvidence {
  const gauges = atWheel(job, 'gauge', wheel);
  const tries = atWheel(job, 'activation', wheel);
  const lastAnswered = tries.findLastIndex(({ seen }) => seen.replies.length > 0);
  const answered = tries[lastAnswered];
  const last = readingThatCounts(gauges);
  const trusted = gauges.findLast(({ seen }) => seen.trusted !== false);
  const scanMs = answered ? Date.parse(answered.seen.at) : undefined;
  const before =
    scanMs === undefined ? undefined : gauges.findLast(({ seen }) => Date.parse(seen.at) <= scanMs);
  const place = context.wheels.indexOf(wheel);
  // The small spare is of another size, and meant to be.
  const signs = atWheel(job, 'visual', wheel).flatMap(({ seen: { sign } }) =>
    sign === 'odd-size' && isSpareAt(job, wheel) ? [] : [sign],
  );
  const record = context.records.find((sensor) => sensor.wheel === wheel);
  const course = courseOf(context, job, ledger, wheel);
  const replies = repliesAt(context, answered, last, course).map((reply) =>
    isOfOtherAir(job, answered, last) ? { ...reply, kPa: null } : reply,
  );
  const heardId = strongest(replies)?.id;
  const byId = context.records.find(({ id }) => id === heardId);
  const lines = context.lines[place] ?? unknownLines;
  const fallsSince =
    last !== undefined && fallenSince(course, { ...inAll(gaugeNow(context, last)), at: last.seen.at }) > 0;
  const gaugesDisagree = disagree(job, gauges, strongest(replies)?.kPa);
  const gaugeIsOld = last !== undefined && scanMs !== undefined && isLaterStop(last, scanMs);
  return {
    wheel,
    monitored: context.monitored.includes(wheel),
    placardKPa: context.placard[place],
    lines,
    bands: context.bands[place] ?? [],
    ...gaugeOf(context, job, wheel, last, answered, course),
    course,
    standing: gaugesDisagree || fallsSince ? undefined : standingNow(job, wheel, gauges),
    gaugeIsOld,
    gaugesDisagree,
    gaugeAgain:
      asksAgain(job, gauges) ||
      (seenFlatSince(job, wheel, last) && last !== undefined) ||
      (gaugeIsOld && saysOther(gaugeNow(context, last), strongest(replies)?.kPa)),
    scans: tries.filter(({ seen }) => seen.replies.length > 0).length,
    trustedGauge: trusted && inAll(gaugeNow(context, trusted)),
    gaugeBeforeScan: before && before !== last ? inAll(gaugeNow(context, before)) : undefined,
    ...beforeFill(context, gauges),
    scannedFirst: scanMs !== undefined && before === undefined && last !== undefined,
    leak: leakLikelihood(context, job, ledger, wheel, course),
    signs,
    replies,
    misses: [
      ...tries.slice(lastAnswered + 1).map(({ seen }) => seen.trigger),
      ...missedInRelearn(job, wheel, scanMs),
    ],
    missedBefore: tries
      .slice(0, Math.max(0, lastAnswered))
      .flatMap(({ seen }) => (seen.replies.length === 0 ? [seen.trigger] : [])),
    ageYears: (byId ?? record)?.ageYears,
    recordedId: record?.id,
    turns: turnsOf(job, wheel),
  };
}

/**
 * Where the gauge puts the tire: what it read last decides, as long as it is to be trusted and nothing was seen at a later
 * stop that speaks of the tire.
 */
function standingNow(
  job: Job,
  wheel: Position,
  gauges: readonly Placed<'gauge'>[],
): WheelEvidence['standing'] {
  const last = gauges.at(-1);
  if (!last || last.seen.trusted === false || softSince(job).includes(wheel)) return undefined;
  const isSince = ({ seen }: { seen: Observation }) => isLaterStop(last, Date.parse(seen.at));
  const spokeSince =
    seenFlatSince(job, wheel, last) ||
    (['activation', 'live', 'display'] as const).some((kind) => atWheel(job, kind, wheel).some(isSince)) ||
    atWheel(job, 'activation', wheel).some(
      ({ seen: { trigger, at } }) => trigger === 'deflation' && Date.parse(at) > Date.parse(last.seen.at),
    );
  const standing = spokeSince ? undefined : standingOf(job, wheel, last.seen);
  const lamp = allOf(job, 'lamp').findLast(isSince);
  const lampSaysOther = lamp?.seen.state === (standing === 'low' ? 'off' : 'steady');
  return lampSaysOther ? undefined : standing;
}

/** Air was let out to teach the car between what the sensor said and what the gauge read: they are of two fillings. */
const isOfOtherAir = (
  job: Job,
  answered: Placed<'activation'> | undefined,
  gauge: Placed<'gauge'> | undefined,
): boolean =>
  answered !== undefined &&
  gauge !== undefined &&
  isLetOut(job, gauge.seen.wheel, Date.parse(answered.seen.at), Date.parse(gauge.seen.at));

const isLaterStop = ({ seen }: Placed<'gauge'>, ms: number): boolean =>
  ms > Date.parse(seen.at) && !isOneStop(ms, Date.parse(seen.at));

/** The sensor speaks of so much more, or less, than the gauge read that air was put in or lost, or one of them is wrong. */
const saysOther = (read: { kPa: number }, repliedKPa: number | null | undefined): boolean =>
  repliedKPa != null && Math.abs(repliedKPa - read.kPa) > 2 * handledKPa;

/** Two trusted readings of one stop of which the later is far lower, and no sensor says so: a third one settles it. */
function disagree(
  job: Job,
  gauges: readonly Placed<'gauge'>[],
  repliedKPa: number | null | undefined,
): boolean {
  const last = gauges.at(-1);
  if (last === undefined || last.seen.trusted === false || !asksAgain(job, gauges)) return false;
  return repliedKPa == null || Math.abs(repliedKPa - last.seen.kPa) > model.inaccuracy.moreThanKPa;
}

/** What was read last asks to be read once more: it is far under, or by a gauge nobody trusts far off, what was read before. */
function asksAgain(job: Job, gauges: readonly Placed<'gauge'>[]): boolean {
  const last = gauges.at(-1);
  const before = gauges.slice(0, -1).findLast(({ seen }) => seen.trusted !== false);
  if (!last || !before) return false;
  const fallen = before.seen.kPa - last.seen.kPa;
  return last.seen.trusted === false
    ? Math.abs(fallen) > model.noise.untrustedGaugeKPa
    : isOneStop(Date.parse(before.seen.at), Date.parse(last.seen.at)) &&
        fallen > 2 * handledKPa &&
        !isLetOut(job, last.seen.wheel, Date.parse(before.seen.at), Date.parse(last.seen.at));
}

/**
 * What the gauge said last, as the tire stands now: less what its sensor saw it lose since, and with the more doubt
 * the longer ago it was, or where air was let out since to wake the sensor.
 */
function gaugeOf(
  context: Context,
  job: Job,
  wheel: Position,
  last: Placed<'gauge'> | undefined,
  answered: Placed<'activation'> | undefined,
  course: readonly Said[],
): Pick<WheelEvidence, 'gauge' | 'stopDoubtKPa' | 'replyDoubtKPa'> {
  const flat = seenFlat(context, job, wheel, last);
  if (flat || !last) return { gauge: flat, stopDoubtKPa: 0, replyDoubtKPa: 0 };
  const { otherStopKPa, wokenByAirKPa } = model.noise;
  const read = gaugeNow(context, last);
  const slip = slipOf(last);
  const fallen = fallenSince(course, { ...inAll(read), at: last.seen.at });
  if (fallen > 0)
    return { gauge: { ...inAll(read), kPa: read.kPa - fallen, slip }, stopDoubtKPa: 0, replyDoubtKPa: 0 };
  const isLater = answered && Date.parse(answered.seen.at) > Date.parse(last.seen.at);
  if (isLater && answered.seen.trigger === 'deflation') {
    const sdKPa = Math.hypot(inAll(read).sdKPa, wokenByAirKPa.sd);
    return {
      gauge: { kPa: read.kPa - wokenByAirKPa.mean, sdKPa, slip },
      stopDoubtKPa: 0,
      replyDoubtKPa: 0,
    };
  }
  if (!answered || isOneStop(Date.parse(answered.seen.at), Date.parse(last.seen.at)))
    return {
      gauge: { kPa: read.kPa, sdKPa: read.sdKPa, slip },
      stopDoubtKPa: read.doubtKPa,
      replyDoubtKPa: 0,
    };
  // What is older says less of now.
  const { kPa, sdKPa } = inAll(read);
  return {
    gauge: { kPa, sdKPa: isLater ? Math.hypot(sdKPa, otherStopKPa) : sdKPa, slip },
    stopDoubtKPa: 0,
    replyDoubtKPa: isLater ? 0 : otherStopKPa,
  };
}

/** A tire that was seen flat, and not gauged since, is about that: as good as a reading by eye. */
function seenFlat(
  context: Context,
  job: Job,
  wheel: Position,
  gauge: Placed<'gauge'> | undefined,
): WheelEvidence['gauge'] {
  if (!seenFlatSince(job, wheel, gauge)) return undefined;
  const placard = context.placard[context.wheels.indexOf(wheel)] ?? model.unknownPlacard.usualKPa;
  const { ofPlacard, sdOfPlacard, slip } = model.seenFlat;
  return { kPa: ofPlacard * placard, sdKPa: sdOfPlacard * placard, slip };
}

function seenFlatSince(job: Job, wheel: Position, gauge: Placed<'gauge'> | undefined): boolean {
  const flat = atWheel(job, 'visual', wheel).findLast(({ seen }) => seen.sign === 'flat');
  return flat !== undefined && !(gauge && Date.parse(gauge.seen.at) >= Date.parse(flat.seen.at));
}

/** The wheel at which a relearn failed, and that never answered the tool: one try more, by what was to wake it. */
function missedInRelearn(job: Job, wheel: Position, scanMs: number | undefined): Trigger[] {
  const { seen } = latest(allOf(job, 'relearn')) ?? {};
  if (seen?.outcome !== 'failed' || seen.failedAt !== wheel || scanMs !== undefined) return [];
  const { wakes } = methodOf(seen.method);
  return wakes ? [wakes] : [];
}

function beforeFill(
  context: Context,
  gauges: readonly Placed<'gauge'>[],
): Pick<WheelEvidence, 'beforeFill' | 'filledMs' | 'filledNow'> {
  const filled = gauges.findLastIndex(
    ({ seen }, at) => seen.kPa - (gauges[at - 1]?.seen.kPa ?? seen.kPa) > handledKPa,
  );
  const fill = gauges[filled];
  if (!fill) return { beforeFill: [], filledMs: Number.NEGATIVE_INFINITY, filledNow: false };
  const filledMs = Date.parse(fill.seen.at);
  const lastMs = Date.parse(gauges.at(-1)?.seen.at ?? fill.seen.at);
  return {
    beforeFill: gauges
      .slice(0, filled)
      .map((placed) => ({ ...inAll(gaugeNow(context, placed)), ms: Date.parse(placed.seen.at) })),
    filledMs,
    filledNow: lastMs - filledMs < model.leakRates.visitDays * dayMs,
  };
}

/**
 * How fast the wheel turns against the others. One odd wheel shifts the mean of four, so where three or more
 * were measured each is taken against the middle of them.
 */
function turnsOf(job: Job, wheel: Position): number | undefined {
  const ratioAt = (at: Position) => atWheel(job, 'wheelspeed', at).at(-1)?.seen.ratio;
  const own = ratioAt(wheel);
  if (own === undefined) return undefined;
  const measured = roadWheels.flatMap((at) => ratioAt(at) ?? []).sort((a, b) => a - b);
  if (measured.length < 3) return own;
  const middle =
    ((measured[Math.floor((measured.length - 1) / 2)] ?? 1) +
      (measured[Math.ceil((measured.length - 1) / 2)] ?? 1)) /
    2;
  return own / middle;
}

const slipOf = ({ seen }: Placed<'gauge'>): number =>
  seen.trusted === false ? model.noise.untrustedSlip : model.noise.gaugeSlip;

/**
 * What the sensor said, brought to now by the temperature of the gauge reading of the same stop, so that
 * both are compared as they were read; else by its own.
 */
function repliesAt(
  context: Context,
  answered: Placed<'activation'> | undefined,
  gauge: Placed<'gauge'> | undefined,
  course: readonly Said[],
): Reply[] {
  const { job, nowC } = context;
  if (!answered) return [];
  const together = gauge && isOneStop(Date.parse(gauge.seen.at), Date.parse(answered.seen.at));
  const own = strongest(answered.seen.replies);
  const fallen = fallenFrom(course, Date.parse(answered.seen.at));
  return answered.seen.replies.map((heard): Reply => {
    const reply = { ...heard, id: canonicalId(heard.id) };
    if (reply.kPa == null) return reply;
    if (heard === own) reply.kPa -= fallen;
    if (together) return { ...reply, kPa: reply.kPa + gaugeNow(context, gauge).kPa - gauge.seen.kPa };
    if (reply.tempC == null || nowC === undefined) return reply;
    const air = { kPa: reply.kPa, celsius: reply.tempC, altitudeM: altitudeOf(job) };
    return { ...reply, kPa: atTemperature(air, nowC) };
  });
}
