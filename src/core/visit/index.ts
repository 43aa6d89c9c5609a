import { softSince } from '../history';
import { findingsThatHold, type Assessment, type Finding, type NextTest, type Test } from '../assessment';
import { recordOf } from '../finding';
import { unexplainedDamage } from '../damage';
import { allOf, atWheel, latest, type Job } from '../job';
import { ledgerOf, silentAfterTries, type Ledger } from '../ledger';
import { monitoredWheels, placardKPa, placardToleranceKPa, wheelsOf } from '../placard';
import { proofOf, writeVerdict, type ProofItem, type Proof } from '../proof';
import { needOf } from '../relearn/choice/need';
import { isWhollyRead } from '../registration';
import { nextReplacementStep } from '../replacement';
import { supportWords } from '../supply';
import { setAsideSlips, unitSlipsIn } from '../unit-slip';
import { inWalkingOrder, roadWheels, walkingOrder, type Position } from '../wheel';

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
  /** `asked`: what is wrong with what was typed. */
  | { kind: 'placard'; asked?: string }
  | { kind: 'gauge'; wheel: Position; again: boolean; asked?: string }
  | { kind: 'fill'; wheel: Position; addKPa: number }
  | { kind: 'wake'; wheel: Position; tries: number }
  | { kind: 'read-car' }
  | { kind: 'support-supply'; how: string }
  | { kind: 'write-ids' }
  | { kind: 'read-back' }
  | { kind: 'clear-codes' }
  | { kind: 'drive' }
  | { kind: 'look-at-lamp' }
  /** A look at a wheel: tread, sidewall, stem. */
  | { kind: 'look'; wheel: Position }
  /** Another check, done by hand and written down: what the display shows, a logged drive … */
  | { kind: 'check'; test: CheckedByHand; wheel?: Position }
  /** What was chosen to be replaced: programmed, and fitted by the list. */
  | { kind: 'program'; wheel: Position }
  | { kind: 'service'; wheel: Position }
  /** The car is taught by a way that needs no lead, or by another one where writing failed. */
  | { kind: 'relearn'; failed: number }
  /** What was seen of a tire, and what it turned out to be. */
  | { kind: 'explain'; wheel: Position }
  | { kind: 'act'; finding: Finding }
  | { kind: 'hand-over' }
  | { kind: 'done' };

/** Tests whose result somebody types in. */
export const checkedByHand = [
  'display',
  'reception',
  'shift',
  'wheelspeed',
  'baseline',
] as const satisfies readonly Test[];
export type CheckedByHand = (typeof checkedByHand)[number];

export interface MoveContext {
  assessment: Assessment;
  handedOver: boolean;
  /** There is a lead to this car, so it can be read and written. */
  hasLead: boolean;
  /** There is an activation tool. */
  hasTool: boolean;
}

/**
 * The next move of a visit: first what is unknown of a write; then, as long as a check is worth its minutes,
 * the check; then put right what holds; then prove it, measuring what has not been measured yet.
 */
export function nextMove(asked: Job, context: MoveContext): Move {
  const { assessment, handedOver, hasLead } = context;
  if (handedOver) return { kind: 'done' };
  const slip = slipToAsk(asked);
  const { job } = setAsideSlips(asked);
  const ledger = ledgerOf(job);
  const pending = (job.carWrites ?? []).some(
    (write) =>
      write.kind !== 'sensor' && writeVerdict(write) === 'unknown' && write === lastOfKind(job, write.kind),
  );
  if (pending && hasLead) return { kind: 'read-back' };
  if (roadWheels.some((wheel) => placardKPa(job, wheel) === undefined)) return { kind: 'placard' };

  if (slip) return slip;
  const doubted = failedInRelearn(job);
  if (doubted && context.hasTool) return { kind: 'wake', wheel: doubted, tries: 0 };
  const step = nextReplacementStep(job);
  if (step) {
    return step.do === 'wake'
      ? { kind: 'wake', wheel: step.wheel, tries: 0 }
      : { kind: step.do, wheel: step.wheel };
  }
  const check = worthwhileCheck(job, context);
  if (check) return asMove(check.test, check.wheel, ledger);

  const holding = findingsThatHold(assessment);
  const part = holding.find(({ code }) => recordOf(code).work?.before === 'writing');
  if (part) return { kind: 'act', finding: part };
  const refusedWrites = writesThatFailed(job);
  if (assessment.registration && !assessment.registration.ok && hasLead && refusedWrites < triesOfOneWay) {
    return holding.some(({ code }) => code === 'supply-voltage-low')
      ? { kind: 'support-supply', how: supportWords(job.vehicle.tpms) }
      : { kind: 'write-ids' };
  }
  const fill = assessment.targets.find(
    ({ addKPa, wheel }) => addKPa !== undefined && addKPa > placardToleranceKPa && ledger.gauge[wheel],
  );
  if (fill?.addKPa !== undefined) return { kind: 'fill', wheel: fill.wheel, addKPa: fill.addKPa };

  const work = holding.find(({ code }) => recordOf(code).work?.before === 'proof');
  if (work) return { kind: 'act', finding: work };
  const unmeasured = toProve(job, ledger, context);
  if (unmeasured) return unmeasured;
  const [damaged] = unexplainedDamage(job);
  if (damaged) return { kind: 'explain', wheel: damaged.wheel };
  if (teachingIsOpen(job, ledger)) return { kind: 'relearn', failed: refusedWrites };
  return moveFromProof(proofOf(job), hasLead);
}

/** A figure in a unit it was not meant in is read again before anything rests on it. */
function slipToAsk(job: Job): Move | undefined {
  const { placard, gauges, found } = unitSlipsIn(job);
  const about = (path: string) => {
    const asked = found.find((one) => one.path === path)?.message;
    return asked === undefined ? {} : { asked };
  };
  const [line] = placard;
  if (line !== undefined) return { kind: 'placard', ...about(`placard.${line}.coldKPa`) };
  const wheels = gauges.flatMap((place) => {
    const seen = job.observations[place];
    return seen?.kind === 'gauge' ? [seen.wheel] : [];
  });
  for (const wheel of inWalkingOrder(wheels)) {
    const last = atWheel(job, 'gauge', wheel).at(-1);
    if (last && gauges.includes(last.index))
      return { kind: 'gauge', wheel, again: true, ...about(`observations.${last.index}.kPa`) };
  }
  return undefined;
}

/** The wheel at which the last relearn failed, as long as nobody woke its sensor since: that is the one to ask. */
function failedInRelearn(job: Job): Position | undefined {
  const { seen } = latest(allOf(job, 'relearn')) ?? {};
  if (seen?.outcome !== 'failed' || seen.failedAt === undefined) return undefined;
  const { failedAt, at } = seen;
  const woken = atWheel(job, 'activation', failedAt).some(
    (tried) => Date.parse(tried.seen.at) >= Date.parse(at),
  );
  return woken || !monitoredWheels(job).includes(failedAt) ? undefined : failedAt;
}

/** A way that failed so often is not offered again (practice): another one is. */
const triesOfOneWay = 2;

/** Writes of IDs in a row, the latest ones, after which the car does not hold what was asked. */
function writesThatFailed({ carWrites = [] }: Job): number {
  const verdicts = carWrites.flatMap((write) => (write.kind === 'registry' ? [writeVerdict(write)] : []));
  return verdicts.length - 1 - verdicts.findLastIndex((verdict) => verdict === 'worked');
}

/** The car must be taught, and that has not been tried in vain too often. */
function teachingIsOpen(job: Job, ledger: Ledger): boolean {
  if (job.vehicle.tpms.kind !== 'direct') return false;
  const { action } = needOf(job, ledger);
  const failed = allOf(job, 'relearn').filter(({ seen }) => seen.outcome === 'failed').length;
  return (action === 'relearn' || action === 'acknowledge') && failed < triesOfOneWay;
}

/** A test the shop can do now, with what it has at hand, and whose answers are worth more than its minutes. */
export function worthwhileCheck(
  job: Job,
  context: Pick<MoveContext, 'assessment' | 'hasLead' | 'hasTool'>,
): NextTest | undefined {
  return nextOnTheWalk(context.assessment.nextTests.filter(({ test }) => canDo(test, job, context)));
}

/**
 * The test to do next: the one that gains most for its minutes. One goes round the car anyway, so of tests
 * of one kind that are worth about as much it is the next on the walk. Undefined where none is worth it.
 */
function nextOnTheWalk(tests: readonly NextTest[]): NextTest | undefined {
  const worth = tests.filter(({ savesMinutes }) => savesMinutes > 0);
  const [best] = worth;
  const alike = worth.filter(
    ({ test, bits }) => best && test === best.test && bits >= best.bits * aboutAsMuch,
  );
  const wheel = walkingOrder.find((position) => alike.some((test) => test.wheel === position));
  return alike.find((test) => test.wheel === wheel) ?? best;
}

const aboutAsMuch = 0.5;

function canDo(
  test: Test,
  job: Job,
  { hasLead, hasTool }: Pick<MoveContext, 'hasLead' | 'hasTool'>,
): boolean {
  switch (test) {
    case 'activation':
      return hasTool;
    case 'registry':
    case 'drive':
      return hasLead && job.vehicle.tpms.kind === 'direct';
    default:
      return true;
  }
}

function asMove(test: Test, wheel: Position | undefined, ledger: Ledger): Move {
  switch (test) {
    case 'gauge':
      return {
        kind: 'gauge',
        wheel: wheel ?? 'LF',
        again: wheel !== undefined && ledger.gauge[wheel] !== undefined,
      };
    case 'activation': {
      const scan = wheel && ledger.sensor[wheel];
      return { kind: 'wake', wheel: wheel ?? 'LF', tries: scan?.kind === 'silent' ? scan.tries.length : 0 };
    }
    case 'visual':
      return { kind: 'look', wheel: wheel ?? 'LF' };
    case 'registry':
      return { kind: 'read-car' };
    case 'drive':
      return { kind: 'drive' };
    case 'lamp':
      return { kind: 'look-at-lamp' };
    case 'display':
    case 'reception':
    case 'shift':
    case 'wheelspeed':
    case 'baseline':
      return { kind: 'check', test, ...(wheel && { wheel }) };
  }
}

/** What the proof needs and nobody has measured yet, in the order of the walk. */
function toProve(job: Job, ledger: Ledger, { hasLead, hasTool }: MoveContext): Move | undefined {
  const ungauged = wheelsOf(job).find((wheel) => !ledger.gauge[wheel]);
  if (ungauged) return { kind: 'gauge', wheel: ungauged, again: false };
  const [soft] = softSince(job);
  if (soft) return { kind: 'gauge', wheel: soft, again: true };
  const unheard = monitoredWheels(job).find((wheel) => !isScanned(ledger, wheel));
  if (hasTool && unheard) return asMove('activation', unheard, ledger);
  if (hasLead && job.vehicle.tpms.kind === 'direct' && !isWhollyRead(job, ledger))
    return { kind: 'read-car' };
  return undefined;
}

function moveFromProof({ proved, checks }: Proof, hasLead: boolean): Move {
  if (proved) return { kind: 'hand-over' };
  const open = (name: ProofItem['name']) =>
    checks.some((check) => check.name === name && check.state !== 'met');
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
    case 'look':
    case 'check':
    case 'program':
    case 'service':
    case 'explain':
      return 'follows';
    case 'write-ids':
    case 'read-back':
    case 'support-supply':
    case 'relearn':
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

/** Whether what a station is for has been done, whatever the order it was done in. */
export function isPassed(station: Station, job: Job, proof: Proof): boolean {
  const ledger = ledgerOf(job);
  switch (station) {
    case 'placard':
      return roadWheels.every((wheel) => placardKPa(job, wheel) !== undefined);
    case 'gauge':
      return wheelsOf(job).every((wheel) => ledger.gauge[wheel]);
    case 'scan':
      return monitoredWheels(job).every((wheel) => isScanned(ledger, wheel));
    case 'car':
      return job.vehicle.tpms.kind === 'direct' ? isWhollyRead(job, ledger) : ledger.registry !== undefined;
    case 'write': {
      const write = lastOfKind(job, 'registry');
      return write !== undefined && writeVerdict(write) === 'worked';
    }
    case 'prove':
      return proof.proved;
    case 'follows':
    case 'hand-over':
      return false;
  }
}

/** Heard clearly, or silent often enough to be taken for silent. */
function isScanned(ledger: Ledger, wheel: Position): boolean {
  const scan = ledger.sensor[wheel];
  return scan?.kind === 'heard' || (scan?.kind === 'silent' && scan.tries.length >= silentAfterTries);
}
