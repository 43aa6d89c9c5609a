import type { Assessment, Finding, FindingCode } from '../assessment';
import type { Job } from '../job';
import { ledgerOf, type Ledger } from '../ledger';
import { monitoredWheels, placardKPa, placardToleranceKPa, wheelsOf } from '../placard';
import { proofOf, writeVerdict, type Check, type Proof } from '../proof';
import { roadWheels, type Position } from '../wheel';

/** The stations of a visit, in the order they are passed. Each can be reached at any time. */
export const stations = [
  'placard',
  'gauge',
  'scan',
  'car',
  'follows',
  'write',
  'prove',
  'hand-over',
] as const;
export type Station = (typeof stations)[number];

/** The one thing to do next. */
export type Move =
  | { kind: 'placard' }
  | { kind: 'gauge'; wheel: Position; again: boolean }
  | { kind: 'fill'; wheel: Position; addKPa: number }
  | { kind: 'wake'; wheel: Position; tries: number }
  | { kind: 'read-car' }
  | { kind: 'support-supply' }
  | { kind: 'write-ids' }
  | { kind: 'read-back' }
  | { kind: 'clear-codes' }
  | { kind: 'drive' }
  | { kind: 'look-at-lamp' }
  | { kind: 'act'; finding: Finding }
  | { kind: 'hand-over' }
  | { kind: 'done' };

/** Two silent tries with different triggers, then the wheel is recorded as silent and left. */
export const silentAfterTries = 2;

export interface MoveContext {
  assessment: Assessment;
  handedOver: boolean;
  /** There is a lead to this car, so it can be read and written. */
  hasLead: boolean;
  /** There is an activation tool. */
  hasTool: boolean;
}

/** The next move of a visit: first what is unknown of a write, then measure, put right, prove. */
export function nextMove(job: Job, { assessment, handedOver, hasLead, hasTool }: MoveContext): Move {
  if (handedOver) return { kind: 'done' };
  const ledger = ledgerOf(job);
  const pending = (job.carWrites ?? []).some(
    (write) => writeVerdict(write) === 'unknown' && write === lastOfKind(job, write.kind),
  );
  if (pending && hasLead) return { kind: 'read-back' };

  const measure = nextMeasurement(job, ledger, hasLead, hasTool);
  if (measure) return measure;

  const part = firstOf(assessment, needsPart);
  if (part) return { kind: 'act', finding: part };
  if (assessment.registration && !assessment.registration.ok && hasLead) {
    return assessment.findings.some(({ code }) => code === 'supply-voltage-low')
      ? { kind: 'support-supply' }
      : { kind: 'write-ids' };
  }
  const fill = assessment.targets.find(
    ({ addKPa, wheel }) => addKPa !== undefined && addKPa > placardToleranceKPa && ledger.gauge[wheel],
  );
  if (fill?.addKPa !== undefined) return { kind: 'fill', wheel: fill.wheel, addKPa: fill.addKPa };

  const work = firstOf(assessment, needsHands);
  if (work) return { kind: 'act', finding: work };
  return moveFromProof(proofOf(job), hasLead);
}

/** Findings that call for another part before anything is written. */
const needsPart: readonly FindingCode[] = ['sensor-silent', 'sensor-wrong-type', 'sensor-absent'];
/** Findings that hands must put right before the rest can be proved. */
const needsHands: readonly FindingCode[] = [
  'tire-leaking',
  'tire-overinflated',
  'sensor-inaccurate',
  'sensor-intermittent',
  'receiver-fault',
  'system-disabled',
  'baseline-not-set',
  'wheel-speed-sensor-fault',
  'rolling-radius-off',
];

function firstOf(assessment: Assessment, codes: readonly FindingCode[]): Finding | undefined {
  return assessment.findings.find(({ code }) => codes.includes(code));
}

function nextMeasurement(job: Job, ledger: Ledger, hasLead: boolean, hasTool: boolean): Move | undefined {
  if (roadWheels.some((wheel) => placardKPa(job, wheel) === undefined)) return { kind: 'placard' };
  const ungauged = wheelsOf(job).find((wheel) => !ledger.gauge[wheel]);
  if (ungauged) return { kind: 'gauge', wheel: ungauged, again: false };
  if (hasTool) {
    const unheard = monitoredWheels(job).find((wheel) => {
      const scan = ledger.sensor[wheel];
      return (
        !scan || (scan.kind === 'silent' && scan.tries.length < silentAfterTries) || scan.kind === 'unclear'
      );
    });
    const scan = unheard && ledger.sensor[unheard];
    if (unheard)
      return { kind: 'wake', wheel: unheard, tries: scan?.kind === 'silent' ? scan.tries.length : 0 };
  }
  if (hasLead && job.vehicle.tpms.kind === 'direct' && !ledger.registry) return { kind: 'read-car' };
  return undefined;
}

function moveFromProof({ proved, checks }: Proof, hasLead: boolean): Move {
  if (proved) return { kind: 'hand-over' };
  const open = (name: Check['name']) => checks.some((check) => check.name === name && check.state !== 'met');
  if (open('codes') && hasLead) return { kind: 'clear-codes' };
  if (open('reports') && hasLead) return { kind: 'drive' };
  if (open('lamp')) return { kind: 'look-at-lamp' };
  return { kind: 'hand-over' };
}

function lastOfKind(job: Job, kind: string) {
  return (job.carWrites ?? []).filter((write) => write.kind === kind).at(-1);
}

/** The IDs to send to the car: at each monitored wheel what the tool heard there, else what it holds. */
export function idsToWrite(job: Job): { wheel: Position; id: string | null; from: 'scan' | 'car' }[] {
  const ledger = ledgerOf(job);
  return monitoredWheels(job).map((wheel) => {
    const scan = ledger.sensor[wheel];
    return scan?.kind === 'heard'
      ? { wheel, id: scan.reply.id, from: 'scan' as const }
      : { wheel, id: ledger.registered[wheel] ?? null, from: 'car' as const };
  });
}

/** Which station a move belongs to. */
export function stationOf(move: Move): Station {
  switch (move.kind) {
    case 'placard':
      return 'placard';
    case 'gauge':
    case 'fill':
      return 'gauge';
    case 'wake':
      return 'scan';
    case 'read-car':
      return 'car';
    case 'act':
      return 'follows';
    case 'write-ids':
    case 'read-back':
    case 'support-supply':
      return 'write';
    case 'clear-codes':
    case 'drive':
    case 'look-at-lamp':
      return 'prove';
    case 'hand-over':
    case 'done':
      return 'hand-over';
  }
}
