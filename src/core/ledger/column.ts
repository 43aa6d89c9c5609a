import { agreementAt, type Agreement } from '../agreement';
import type { Assessment, Target } from '../assessment';
import { gaugeWarning, uncertaintyOf, readingAt } from '../gauge';
import { softSince } from '../history';
import { allOf, atWheel, type Job, type Reply, type Seen } from '../job';
import { thresholdsFor } from '../lamp';
import { setAside } from '../set-aside';
import { unitSlipsIn } from '../unit-slip';
import { monitoredWheels, placardKPa, placardToleranceKPa, wheelsOf } from '../placard';
import { holdsScanned } from '../registration';
import { isRightType } from '../sensor-type';
import type { Position } from '../wheel';
import { ledgerOf, type Ledger } from '.';

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
        /** `let-out`: air was let out since to teach the car, so the figure says nothing of now. */
        state: 'low' | 'short' | 'good' | 'over' | 'not-comparable' | 'let-out' | 'other-unit' | 'gauge-off';
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
  held: { id: string | null; agrees: boolean | undefined } | 'not-read' | undefined;
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

export function columnsOf(job: Job, assessment: Pick<Assessment, 'targets'>): Column[] {
  const ledger = ledgerOf(job);
  const monitored = monitoredWheels(job);
  return wheelsOf(job).map((wheel) => ({
    wheel,
    placardKPa: placardKPa(job, wheel),
    gauge: gaugeCell(job, ledger, wheel),
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

function gaugeCell(job: Job, { gauge, gaugeHistory }: Ledger, wheel: Position): Column['gauge'] {
  const reading = gauge[wheel]?.seen;
  if (!reading) return undefined;
  const cold = placardKPa(job, wheel);
  const { lowOnKPa, highOnKPa } = thresholdsFor(job, wheel);
  const nowC = job.climate?.nowC;
  const brought = nowC === undefined ? undefined : readingAt(job, reading, nowC);
  const kPa = brought ?? (reading.tire === 'cold' ? reading.kPa : undefined);
  const slips = unitSlipsIn(job).gauges;
  const { readAgain } = setAside(job);
  const stateOf = () => {
    if (slips.includes(gauge[wheel]?.index ?? -1)) return 'other-unit';
    if (readAgain.includes(gauge[wheel]?.index ?? -1)) return 'gauge-off';
    if (softSince(job).includes(wheel)) return 'let-out';
    if (lowOnKPa !== undefined && (kPa ?? reading.kPa) <= lowOnKPa) return 'low';
    if (kPa === undefined || cold === undefined) return 'not-comparable';
    if (kPa < cold - placardToleranceKPa) return 'short';
    return highOnKPa !== undefined && kPa > highOnKPa ? 'over' : 'good';
  };
  const state = stateOf();
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
      return { kind: 'heard', reply, right, agreement: agreementAt(ledgerOf(setAside(job).job), wheel) };
    }
  }
}

function heldCell(job: Job, ledger: Ledger, wheel: Position): Column['held'] {
  const isRead =
    job.vehicle.tpms.locates === false ? ledger.registry : ledger.registered[wheel] !== undefined;
  return isRead
    ? { id: ledger.registered[wheel] ?? null, agrees: holdsScanned(job, ledger, wheel) }
    : 'not-read';
}
