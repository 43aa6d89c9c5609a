import { methodOf } from '../relearn/method';
import { madeHere } from '../job/by-file';
import { failedInRelearn, softSince } from '../job/history';
import { findingsThatHold, type Assessment, type Finding, type NextTest } from '../judgement/assessment';
import { recordOf } from '../catalogue/finding';
import { unexplainedDamage } from '../tire/damage';
import { allOf, atWheel, type Job } from '../job';
import { readingAtWheel } from '../tire/filling';
import { linesAt } from '../tire/thresholds/lines';
import { ledgerOf, silentAfterTries, type Ledger } from '../job/ledger';
import { outdoorKPa } from '../tire/standing';
import { monitoredWheels, placardKPa, wheelsOf } from '../job/placard';
import { proofOf, type ProofItem, type Proof } from './proof';
import { isPutOff } from './put-off';
import { needOf } from './teaching/choice/need';
import { isWhollyRead } from '../car/registration';
import { nextReplacementStep } from './replacement';
import { supportWords } from '../car/supply';
import { unitSlipsIn } from '../tire/unit-slip';
import { setAside } from '../tire/set-aside';
import { inWalkingOrder, roadWheels, walkingOrder, type Position } from '../names/wheel';
import type { Move } from './move';
import { comesFirst } from './shown';
import { clearedInVain, drivenInVain, lampLooks, triesOfOneWay, writesThatFailed } from './tries';
import { writeVerdict } from '../job/car-write';
import type { Test } from '../catalogue/tests';

export { checkedByHand, type CheckedByHand, type Move } from './move';

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

interface MoveContext {
  assessment: Assessment;
  handedOver: boolean;
  /** The car can be read and taught: over a lead, or with a tool of the shop's own whose readings are typed. */
  hasLead: boolean;
  /** Sensors can be woken: by the tool that is connected, or by one whose readings are typed. */
  hasTool: boolean;
}

/**
 * The next move of a visit: first what is unknown of a write; then, as long as a check is worth its minutes,
 * the check; then put right what holds; then prove it, measuring what has not been measured yet. What was put off
 * is passed over, and the next best offered.
 */
export function nextMove(job: Job, context: MoveContext): Move {
  if (context.handedOver) return { kind: 'done' };
  for (const move of openMoves(job, context)) if (!isPutOff(job, move)) return move;
  return { kind: 'hand-over' };
}

/** All that could be done next, the best first. */
function* openMoves(asked: Job, context: MoveContext): Generator<Move> {
  const { assessment, hasLead } = context;
  const { job } = setAside(asked);
  const ledger = ledgerOf(job);
  const pending = (job.carWrites ?? []).some(
    (write) =>
      write.kind !== 'sensor' && writeVerdict(write) === 'unknown' && write === lastOfKind(job, write.kind),
  );
  if (pending && hasLead) yield { kind: 'read-back' };
  if (roadWheels.some((wheel) => placardKPa(job, wheel) === undefined)) yield { kind: 'placard' };

  const slip = slipToAsk(asked);
  if (slip) yield slip;
  const doubted = failedInRelearn(job);
  if (doubted && context.hasTool) yield { kind: 'wake', wheel: doubted, tries: 0 };
  const step = nextReplacementStep(job);
  if (step) {
    yield step.do === 'wake'
      ? { kind: 'wake', wheel: step.wheel, tries: 0 }
      : { kind: step.do, wheel: step.wheel };
  }
  const check = worthwhileCheck(job, context);
  if (check) yield asMove(check.test, check.wheel, ledger);

  const holding = findingsThatHold(assessment);
  for (const finding of holding) if (workIs('writing', finding)) yield { kind: 'act', finding };
  const failedWrites = writesThatFailed(job);
  if (assessment.registration && !assessment.registration.ok && hasLead && failedWrites < triesOfOneWay) {
    yield holding.some(({ code }) => code === 'supply-voltage-low')
      ? { kind: 'support-supply', how: supportWords(job.vehicle.tpms) }
      : { kind: 'write-ids' };
  }
  for (const finding of holding) if (comesFirst(job, finding)) yield { kind: 'act', finding };
  for (const { addKPa, advice, wheel } of assessment.targets)
    if (addKPa !== undefined && advice === 'add')
      yield isOutspoken(job, ledger, wheel, holding)
        ? { kind: 'gauge', wheel, again: true }
        : { kind: 'fill', wheel, addKPa };
  for (const finding of holding) if (workIs('proof', finding)) yield { kind: 'act', finding };
  const here = madeHere(job);
  yield* toProve(here, ledgerOf(here), context);
  for (const { wheel } of unexplainedDamage(job)) yield { kind: 'explain', wheel };
  if (teachingIsOpen(job, ledger)) yield { kind: 'relearn', failed: failedWrites };
  yield* movesFromProof(here, proofOf(job), hasLead);
}

/** The gauge read it short, and what was seen since says that it is not: it is read again before air goes in. */
function isOutspoken(job: Job, ledger: Ledger, wheel: Position, holding: readonly Finding[]): boolean {
  const reading = readingAtWheel(ledger, wheel);
  const read = reading && outdoorKPa(job, reading);
  const isFound = holding.some(
    ({ code, wheels }) => (code === 'tire-low' || code === 'tire-underinflated') && wheels.includes(wheel),
  );
  return read !== undefined && read <= linesAt(job, wheel).short && !isFound;
}

/** What holds asks for work by hands, and that comes before this. */
const workIs = (before: 'writing' | 'proof', { code }: Finding): boolean =>
  recordOf(code).work?.before === before;

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
  return readAgain(job);
}

/** What an instrument that is off was read with is read again with another one, before air goes in or out by it. */
function readAgain(asked: Job): Move | undefined {
  const { job, gaugeOff, readAgain: places, asked: doubts } = setAside(asked);
  const message = doubts.find(({ path }) => path === `observations.${places[0]}.kPa`)?.message;
  // Round the car: where it reads as before at a second wheel, it was not the gauge.
  const [wheel] = (gaugeOff?.wheels ?? [])
    .filter((one) => atWheel(job, 'gauge', one).length === 0)
    .sort((one, other) => atWheel(asked, 'gauge', one).length - atWheel(asked, 'gauge', other).length);
  return message === undefined || wheel === undefined
    ? undefined
    : { kind: 'gauge', wheel, again: true, asked: message };
}

/** The car must be taught, and that has not been tried in vain too often by another way than sending it its IDs. */
function teachingIsOpen(job: Job, ledger: Ledger): boolean {
  if (job.vehicle.tpms.kind !== 'direct') return false;
  const { action } = needOf(job, ledger);
  const failed = allOf(job, 'relearn').filter(
    ({ seen }) => seen.outcome === 'failed' && !methodOf(seen.method).sendsIds,
  ).length;
  return (action === 'relearn' || action === 'acknowledge') && failed < triesOfOneWay;
}

/** A test the shop can do now, with what it has at hand, and whose answers are worth more than its minutes. */
export function worthwhileCheck(
  job: Job,
  context: Pick<MoveContext, 'assessment' | 'hasLead' | 'hasTool'>,
): NextTest | undefined {
  const ledger = ledgerOf(job);
  return nextOnTheWalk(
    context.assessment.nextTests.filter(
      ({ test, wheel }) =>
        canDo(test, job, context) &&
        !(test === 'activation' && wheel && wokenInVain(ledger, wheel)) &&
        !isPutOff(job, asMove(test, wheel, ledger)),
    ),
  );
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
      return { kind: 'drive', tries: 0 };
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
function* toProve(job: Job, ledger: Ledger, { hasLead, hasTool }: MoveContext): Generator<Move> {
  for (const wheel of wheelsOf(job)) if (!ledger.gauge[wheel]) yield { kind: 'gauge', wheel, again: false };
  for (const wheel of softSince(job)) yield { kind: 'gauge', wheel, again: true };
  if (hasTool) {
    for (const wheel of monitoredWheels(job))
      if (!isScanned(ledger, wheel)) yield asMove('activation', wheel, ledger);
  }
  if (hasLead && job.vehicle.tpms.kind === 'direct' && !isWhollyRead(job, ledger)) yield { kind: 'read-car' };
}

function* movesFromProof(job: Job, { proved, checks }: Proof, hasLead: boolean): Generator<Move> {
  if (proved) return;
  const open = (name: ProofItem['name']) =>
    checks.some((check) => check.name === name && check.state !== 'met');
  const cleared = clearedInVain(job);
  if (open('codes') && hasLead && cleared < triesOfOneWay) yield { kind: 'clear-codes', tries: cleared };
  const driven = drivenInVain(job);
  if (open('reports') && hasLead && driven < triesOfOneWay) yield { kind: 'drive', tries: driven };
  if (open('reset')) yield { kind: 'check', test: 'baseline' };
  if (open('lamp') && lampLooks(job) < triesOfOneWay) yield { kind: 'look-at-lamp' };
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

/** It answered to no trigger there is: once more would say nothing new. */
function wokenInVain({ sensor }: Ledger, wheel: Position): boolean {
  const scan = sensor[wheel];
  return scan?.kind === 'silent' && scan.tries.length >= silentToAll;
}

/** Pulsed, continuous, magnet. */
const silentToAll = 3;

/** Heard clearly, or silent often enough to be taken for silent. */
function isScanned(ledger: Ledger, wheel: Position): boolean {
  const scan = ledger.sensor[wheel];
  return scan?.kind === 'heard' || (scan?.kind === 'silent' && scan.tries.length >= silentAfterTries);
}
