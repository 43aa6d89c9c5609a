import { findingsThatHold, type Assessment, type Finding } from '../judgement/assessment';
import { damageAt, isNearFlat, unexplainedDamage } from '../tire/damage';
import { damageWords } from '../tire/damage/words';
import { blamesNothing, findingKey, recordOf, type FindingCode } from '../catalogue/finding';
import type { Job } from '../job';
import { figure, pressure, type Notation } from '../measure/units';
import type { Position } from '../names/wheel';
import type { Move } from './move';

/** What of a verdict stands in sight, in the order of what to do: its first is what the next move is about. */
export interface Shown {
  findings: Finding[];
  /** Among them what the move is about, if anything is. */
  subject: Finding | undefined;
  /** Wheels of which the car had nothing while it stood: that is no finding, and said in a note. */
  asleep: Position[];
}

export function shownOf(job: Job, assessment: Pick<Assessment, 'findings'>, move: Move): Shown {
  const holding = findingsThatHold(assessment);
  const findings = holding
    .filter(({ code }) => code !== 'sensors-asleep')
    .sort((a, b) => rankOf(job, a) - rankOf(job, b) || b.probability - a.probability);
  const subject = subjectOf(move, findings);
  return {
    findings: subject ? [subject, ...findings.filter((finding) => finding !== subject)] : findings,
    subject,
    asleep: holding.find(({ code }) => code === 'sensors-asleep')?.wheels ?? [],
  };
}

/** What waits for nothing else: a hot tire, and one that is seen to be hurt or stood nearly flat, before air goes in. */
export const comesFirst = (job: Job, { code, wheels }: Finding): boolean =>
  code === 'tire-hot' ||
  (code === 'tire-leaking' &&
    wheels.some((wheel) => damageAt(job, wheel).signs.length > 0 || isNearFlat(job, wheel)));

/** The order in which findings are worked off: what is put right before IDs are written, the writing, the air, the rest. */
function rankOf(job: Job, finding: Finding): number {
  const { remedy, work } = recordOf(finding.code);
  if (comesFirst(job, finding)) return 0;
  if (blamesNothing(finding.code)) return 6;
  if (work?.before === 'writing') return 1;
  if (remedy === 'charger' || remedy === 'write') return 2;
  if (remedy === 'air') return 3;
  return work ? 4 : 5;
}

/** What of the findings a move is about; undefined where it is a check of something else. */
function subjectOf(move: Move, findings: readonly Finding[]): Finding | undefined {
  const about = (codes: readonly FindingCode[], wheel?: Position) =>
    findings.find(
      (finding) =>
        codes.includes(finding.code) &&
        (wheel === undefined || finding.wheels.length === 0 || finding.wheels.includes(wheel)),
    );
  switch (move.kind) {
    case 'act':
      return findings.find((finding) => findingKey(finding) === findingKey(move.finding));
    case 'fill':
      return about(['tire-low', 'tire-underinflated', 'temperature-drop', 'lamp-latched'], move.wheel);
    case 'gauge':
      return move.again ? about(['gauge-off']) : undefined;
    case 'explain':
      return about(['tire-leaking'], move.wheel);
    case 'support-supply':
      return about(['supply-voltage-low']);
    case 'write-ids':
    case 'relearn':
      return findings.find(({ code }) => recordOf(code).remedy === 'write');
    case 'program':
    case 'service':
      return findings.find(
        ({ code, wheels }) => recordOf(code).remedy === 'part' && wheels.includes(move.wheel),
      );
    case 'drive':
      return about(['waiting-for-drive']);
    case 'hand-over':
    case 'done':
      return about(['no-fault']);
    default:
      return undefined;
  }
}

/** Whether a move only looks, or measures, and changes nothing. */
export function isCheck({ kind }: Move): boolean {
  switch (kind) {
    case 'placard':
    case 'gauge':
    case 'wake':
    case 'read-car':
    case 'read-back':
    case 'drive':
    case 'look-at-lamp':
    case 'look':
    case 'check':
      return true;
    default:
      return false;
  }
}

/** What was seen of a tire, or how low it was found, where no finding speaks of it: "Seen at RR: an object in the tread". */
export function damageLeft(job: Job, findings: readonly Finding[], units: Notation): string | undefined {
  const [left] = unexplainedDamage(job).filter(
    ({ wheel }) => !findings.some(({ code, wheels }) => code === 'tire-leaking' && wheels.includes(wheel)),
  );
  return left && `${left.wheel}: ${damageWords(left, (kPa) => figure(pressure, kPa, units))}`;
}
