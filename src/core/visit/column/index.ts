import { agreementAt, type Agreement } from '../../sensor/agreement';
import { findingsThatHold, type Assessment } from '../../judgement/assessment';
import type { FindingCode } from '../../catalogue/finding';
import { gaugeWarning, readingThatCounts, uncertaintyOf } from '../../tire/gauge';
import { softSince } from '../../job/history';
import { allOf, atWheel, type Job, type Placed, type Reply, type Seen } from '../../job';
import { linesAt } from '../../tire/thresholds/lines';
import { setAside } from '../../tire/set-aside';
import { unitSlipsIn } from '../../tire/unit-slip';
import { monitoredWheels, placardKPa, wheelsOf } from '../../job/placard';
import { holdsScanned } from '../../car/registration';
import { isRightType } from '../../sensor/type';
import type { Position } from '../../names/wheel';
import { ledgerOf, type Ledger } from '../../job/ledger';
import { outdoorKPa, standingOf, type Standing } from '../../tire/standing';
import type { Target } from '../../tire/filling';

/**
 * Where the reading puts its tire, or why it does not: a warm tire of which nobody knows how warm; air let out since to
 * teach the car; a figure in another unit, or by a gauge that is off; one nobody trusts, where a trusted one counts; one
 * that is of before what says otherwise.
 */
type GaugeState =
  Standing | 'not-comparable' | 'let-out' | 'other-unit' | 'gauge-off' | 'not-trusted' | 'earlier';

/** One wheel's column of the ledger, ready to be shown: each source under the other. */
export interface Column {
  wheel: Position;
  placardKPa: number | undefined;
  gauge:
    | {
        kPa: number;
        tire: 'cold' | 'warm';
        /** Against placard, at the outdoor temperature where the tire's is known. */
        differenceKPa: number | undefined;
        state: GaugeState;
        /** To the letter, where it is what was typed. */
        typed: unknown;
        /** Half of the 95 % interval of the figure: gauge and temperature. */
        uncertaintyKPa: number;
        /** What is wrong with the gauge it was read with, in words. */
        warning: string | undefined;
        /** Readings before this one, oldest first. */
        earlierKPa: number[];
        key: string | undefined;
      }
    | undefined;
  target: Target | undefined;
  /** Undefined where this wheel has none to look for. */
  sensor: SensorCell | undefined;
  /** Without an ID on a car that ties none to a position. */
  held: { id: string | null | undefined; agrees: boolean | undefined } | 'not-read' | undefined;
  live: { kPa: number | null; speedKmh: number | undefined } | undefined;
  /** What the driver's display shows for this position. */
  display: { kPa: number | null } | undefined;
  /** What was seen of tire and stem, each once. */
  looks: Seen<'visual'>['sign'][];
  /** Trouble codes that stand and name this wheel. */
  codes: string[];
}

export type SensorCell =
  | { kind: 'not-woken' }
  | { kind: 'silent'; tries: number }
  | { kind: 'unclear'; count: number }
  | { kind: 'heard'; reply: Reply; right: boolean; agreement: Agreement | undefined };

export function columnsOf(job: Job, assessment: Pick<Assessment, 'targets' | 'findings'>): Column[] {
  const ledger = ledgerOf(job);
  const monitored = monitoredWheels(job);
  return wheelsOf(job).map((wheel) => ({
    wheel,
    placardKPa: placardKPa(job, wheel),
    gauge: gaugeCell(job, ledger, wheel, assessment),
    target: assessment.targets.find((target) => target.wheel === wheel),
    sensor: monitored.includes(wheel) ? sensorCell(job, ledger, wheel) : undefined,
    held: monitored.includes(wheel) ? heldCell(job, ledger, wheel) : undefined,
    live: ledger.live[wheel] && {
      kPa: ledger.live[wheel].seen.kPa,
      speedKmh: ledger.live[wheel].seen.speedKmh,
    },
    display: ledger.display[wheel] && { kPa: ledger.display[wheel].seen.kPa },
    looks: [...new Set(atWheel(job, 'visual', wheel).map(({ seen }) => seen.sign))],
    codes: ledger.codes.flatMap(({ seen }) => (seen.wheel === wheel ? [seen.code] : [])),
  }));
}

/** Trouble codes that stand and name no wheel; undefined where nobody read the codes. */
export function carCodesOf(job: Job): string[] | undefined {
  const standing = ledgerOf(job).codes;
  const isRead =
    allOf(job, 'dtc').length > 0 ||
    allOf(job, 'registry').some(({ seen }) => seen.codes !== undefined) ||
    (job.carWrites ?? []).some(({ kind, readBackAt }) => kind === 'clear-codes' && readBackAt !== undefined);
  return isRead ? standing.flatMap(({ seen }) => (seen.wheel ? [] : [seen.code])) : undefined;
}

function gaugeCell(
  job: Job,
  { gauge, gaugeHistory }: Ledger,
  wheel: Position,
  assessment: Pick<Assessment, 'findings'>,
): Column['gauge'] {
  const placed = gauge[wheel];
  if (!placed) return undefined;
  const reading = placed.seen;
  const cold = placardKPa(job, wheel);
  const kPa = outdoorKPa(job, reading);
  const state = gaugeState(job, wheel, placed, assessment);
  return {
    kPa: reading.kPa,
    tire: reading.tire,
    differenceKPa: cold === undefined || kPa === undefined || state === 'other-unit' ? undefined : kPa - cold,
    state,
    typed: reading.typed,
    uncertaintyKPa: uncertaintyOf(job, reading),
    warning: gaugeWarning(reading),
    earlierKPa: (gaugeHistory[wheel] ?? []).slice(0, -1).map(({ seen }) => seen.kPa),
    key: typeof reading.key === 'string' ? reading.key : undefined,
  };
}

function gaugeState(
  job: Job,
  wheel: Position,
  placed: Placed<'gauge'>,
  assessment: Pick<Assessment, 'findings'>,
): GaugeState {
  if (unitSlipsIn(job).gauges.includes(placed.index)) return 'other-unit';
  const { job: now, readAgain } = setAside(job);
  if (readAgain.includes(placed.index)) return 'gauge-off';
  if (softSince(job).includes(wheel)) return 'let-out';
  const counting = readingThatCounts(atWheel(now, 'gauge', wheel));
  if (!counting) return 'earlier';
  if (counting.seen !== placed.seen) return 'not-trusted';
  const standing = standingOf(job, wheel, placed.seen) ?? 'not-comparable';
  const isFound = (...codes: FindingCode[]) =>
    findingsThatHold(assessment).some(({ code, wheels }) => codes.includes(code) && wheels.includes(wheel));
  const isReadShort = (outdoorKPa(job, placed.seen) ?? 0) <= linesAt(job, wheel).short;
  const isFoundSo =
    standing === 'low' ? isFound('tire-low') : isReadShort === isFound('tire-low', 'tire-underinflated');
  return standing === 'not-comparable' || isFoundSo ? standing : 'earlier';
}

function sensorCell(job: Job, ledger: Ledger, wheel: Position): SensorCell {
  const scan = ledger.sensor[wheel];
  switch (scan?.kind) {
    case undefined:
      return { kind: 'not-woken' };
    case 'silent':
      return { kind: 'silent', tries: scan.tries.length };
    case 'unclear':
      return { kind: 'unclear', count: scan.replies.length };
    case 'heard': {
      const { reply } = scan;
      const right = isRightType(job.vehicle.tpms, reply) !== false;
      return { kind: 'heard', reply, right, agreement: agreementAt(setAside(job).job, wheel) };
    }
  }
}

function heldCell(job: Job, ledger: Ledger, wheel: Position): Column['held'] {
  const agrees = holdsScanned(job, ledger, wheel);
  if (job.vehicle.tpms.locates === false) return ledger.registry ? { id: undefined, agrees } : 'not-read';
  const id = ledger.registered[wheel];
  return id === undefined ? 'not-read' : { id, agrees };
}
