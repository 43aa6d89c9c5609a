import { blamesNothing, recordOf, type FindingCode } from '../../catalogue/finding';
import { allOf, atWheel, type Job } from '../../job';
import { programmedFor } from '../../job/car-write';
import { serviceOf } from '../../sensor/service';
import { changesOf, isOfRegistration, type Change } from '../../job/history';
import { repairOutcomesOf, type RepairOutcome } from '../../job/repair-outcome';
import { findingsThatHold, type Finding } from '../../judgement/assessment';
import { verdictOn, type Experience } from '../../judgement/diagnosis';
import { sameId } from '../../names/sensor-id';
import { inWalkingOrder, type Position } from '../../names/wheel';

/** One thing that was found on a visit, at its surest. */
export interface Found {
  code: FindingCode;
  wheels: Position[];
  /** The highest chance it had before anybody changed what it is about, 0 to 1. */
  probability: number;
}

/**
 * What was wrong with the car: each finding as it stood when somebody began to put it right, or stands now where nobody
 * did. What a check refuted before that is none of it, nor what follows from the work itself: a tire that was filled
 * to too little, an ID that is not registered since its sensor is new. What a part turned out to be was found too.
 */
export function foundOn(job: Job, experience?: Experience): Found[] {
  const deeds = deedsOn(job);
  const moments = [...new Set(deeds.map(({ atMs }) => atMs)), Number.POSITIVE_INFINITY].sort((a, b) => a - b);
  const verdicts = moments.map((atMs) => ({
    atMs,
    findings: findingsThatHold(verdictOn(before(job, atMs), experience)).flatMap(perWheel),
  }));
  const surest = new Map<string, One>();
  for (const { atMs, findings } of verdicts)
    for (const finding of findings) {
      const isAbout = deedsAbout(finding);
      const begun = isAbout && deeds.find(isAbout);
      const begunMs = begun?.atMs ?? Number.POSITIVE_INFINITY;
      if (atMs > begunMs) continue;
      const told = surest.get(keyOf(finding));
      const probability = Math.max(finding.probability, told?.probability ?? 0);
      const stood =
        isAbout && !(begun && mayBeTheSame(job, begun))
          ? atMs === begunMs
          : atMs <= begunMs && probability >= sureWithoutTrace;
      surest.set(keyOf(finding), { ...finding, probability, stood });
    }
  for (const outcome of repairOutcomesOf(job)) confirm(surest, outcome);
  const found = together([...surest.values()].filter(({ stood }) => stood));
  return found.some(({ code }) => !blamesNothing(code))
    ? found.filter(({ code }) => code !== 'no-fault')
    : found;
}

/** A finding at one wheel, or of the car. */
interface One {
  code: FindingCode;
  wheel: Position | undefined;
  probability: number;
  /** It held when somebody set about it. */
  stood: boolean;
}

type Named = Pick<One, 'code' | 'wheel'>;

const keyOf = ({ code, wheel }: Named): string => `${code} ${wheel ?? ''}`;

const perWheel = ({ code, wheels, probability }: Finding): Omit<One, 'stood'>[] =>
  wheels.length === 0
    ? [{ code, wheel: undefined, probability }]
    : wheels.map((wheel) => ({ code, wheel, probability }));

/** What changed the car, and what hands did at a sensor: either ends what was seen before of what it is about. */
type Deed = Change | { kind: 'service'; atMs: number; wheel: Position };

const deedsOn = (job: Job): Deed[] =>
  [
    ...changesOf(job),
    ...(job.sensorServices ?? []).flatMap(({ wheel, at, declined }): Deed[] =>
      declined ? [] : [{ kind: 'service', wheel, atMs: Date.parse(at) }],
    ),
  ].sort((a, b) => a.atMs - b.atMs);

/** The deeds by which a finding is put right, or comes about; undefined where nothing on record tells of it. */
function deedsAbout({ code, wheel }: Named): ((deed: Deed) => boolean) | undefined {
  const { remedy, part } = recordOf(code);
  const isThere = (deed: Deed) => wheel === undefined || !('wheel' in deed) || deed.wheel === wheel;
  const isAir = ({ kind }: Deed) => kind === 'air' || kind === 'let-out';
  const isSensor = (deed: Deed) => (deed.kind === 'sensor' || deed.kind === 'service') && isThere(deed);
  if (part === 'tire') return (deed) => deed.kind === 'repair' && isThere(deed);
  if (part === 'sensor') return isSensor;
  if (part === 'reference') return (deed) => isAir(deed) || deed.kind === 'relearn';
  if (remedy === 'air') return (deed) => isAir(deed) && isThere(deed);
  if (remedy === 'write' || remedy === 'drive')
    return (deed) => isSensor(deed) || (deed.kind !== 'service' && isOfRegistration(deed));
  return remedy === 'none' || remedy === 'scan' ? () => false : undefined;
}

/**
 * An answer after silence, with the ID that the car held or none was known of, and nobody noted that the sensor was
 * touched: it may be another one, or a luckier try.
 */
function mayBeTheSame(job: Job, deed: Deed): boolean {
  if (deed.kind !== 'sensor' || serviceOf(job, deed.wheel) || programmedFor(job, deed.wheel)) return false;
  const isBefore = ({ seen }: { seen: { at: string } }) => Date.parse(seen.at) < deed.atMs;
  const held = allOf(job, 'registry')
    .filter(isBefore)
    .flatMap(({ seen }) => seen.entries.flatMap(({ wheel, id }) => (wheel === deed.wheel && id ? [id] : [])));
  const answered = atWheel(job, 'activation', deed.wheel).find(
    ({ seen }) => Date.parse(seen.at) === deed.atMs,
  );
  const [reply] = answered?.seen.replies ?? [];
  return held.length === 0 || reply === undefined || held.some((id) => sameId(id, reply.id));
}

/** What is put right without a trace was found if it was as sure as this at some time: something ended it. */
const sureWithoutTrace = 0.9;

/** The job as it was before a moment: what was seen, written and done by then. */
function before(job: Job, atMs: number): Job {
  if (atMs === Number.POSITIVE_INFINITY) return job;
  const isBefore = (at: string) => Date.parse(at) < atMs;
  const { carWrites, repairs, sensorServices, confirmations } = job;
  return {
    ...job,
    observations: job.observations.filter(({ at }) => isBefore(at)),
    ...(carWrites && { carWrites: carWrites.filter(({ askedAt }) => isBefore(askedAt)) }),
    ...(confirmations && { confirmations: confirmations.filter(({ at }) => isBefore(at)) }),
    ...(repairs && { repairs: repairs.filter(({ at }) => isBefore(at)) }),
    ...(sensorServices && { sensorServices: sensorServices.filter(({ at }) => isBefore(at)) }),
  };
}

/** Whoever had a part in hand knows: what it was is found, and nothing else of that part. */
function confirm(surest: Map<string, One>, { part, wheel, was }: RepairOutcome): void {
  const ofPart = [...surest].filter(
    ([, one]) => recordOf(one.code).part === part && (wheel === undefined || one.wheel === wheel),
  );
  for (const [key, one] of ofPart) {
    if (one.code === was) surest.set(key, { ...one, probability: 1, stood: true });
    else surest.delete(key);
  }
  if (was === 'in-order' || ofPart.some(([, one]) => one.code === was)) return;
  surest.set(keyOf({ code: was, wheel }), { code: was, wheel, probability: 1, stood: true });
}

const isMeasured = (code: FindingCode): number => Number(recordOf(code).part === undefined);

/** One entry a finding, with all its wheels in walking order; as sure as its least sure wheel; a fault before the pressures it explains. */
function together(found: readonly One[]): Found[] {
  const codes = [...new Set(found.map(({ code }) => code))];
  return codes
    .map((code) => {
      const all = found.filter((one) => one.code === code);
      return {
        code,
        wheels: inWalkingOrder(all.flatMap(({ wheel }) => (wheel === undefined ? [] : [wheel]))),
        probability: Math.min(...all.map(({ probability }) => probability)),
      };
    })
    .sort((a, b) => isMeasured(a.code) - isMeasured(b.code) || b.probability - a.probability);
}
