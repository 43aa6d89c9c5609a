import { ChevronDown, ChevronRight, ThumbsDown, ThumbsUp } from 'lucide-react';
import { holds, type Assessment, type Finding, type NextTest } from '../../../core/judgement/assessment';
import {
  couldChange,
  notKnown,
  testWords,
  triedBefore,
} from '../../../core/judgement/diagnosis/explanation/checks';
import type { Reasons } from '../../../core/judgement/diagnosis/explanation/reasons';
import { blamesNothing, findingKey, recordOf, titleOf } from '../../../core/catalogue/finding';
import type { Job } from '../../../core/job';
import { percent, sureness } from '../../../core/judgement/assessment/words';
import { describe } from '../../../core/visit/observation';
import type { Move } from '../../../core/visit';
import { isCheck, type Shown } from '../../../core/visit/shown';
import { moveWords } from '../../../core/visit/words';
import type { Notation } from '../../../core/measure/units';
import { listWheels } from '../../../core/names/wheel';
import styles from './Findings.module.css';

/** So many readings are named; the rest is counted. */
const mostEvidence = 6;
/** A reading that makes the odds so much better or worse, in decibans, is called strong, or fair (judgement). */
const weights = { strong: 10, fair: 4 };
const weightWords = (decibans: number): string => {
  const size = Math.abs(decibans);
  return size >= weights.strong ? 'strong' : size >= weights.fair ? 'fair' : 'slight';
};

/** Until the evidence is there. */
export const weighing = 'Weighing what speaks for it…';

interface FindingsProps {
  /** The job the assessment speaks of. */
  judged: Job;
  reasons: Reasons;
  assessment: Assessment;
  /** The evidence of the findings is there. */
  weighed: boolean;
  /** What of it stands in sight, in the order of what to do. */
  inSight: Shown;
  move: Move;
  /** What is worth checking before anything is done, with what this shop has at hand. */
  check: NextTest | undefined;
  units: Notation;
  /** The finding whose reasons are shown, here and in the ledger. */
  shown: string | undefined;
  onShow: (key: string | undefined) => void;
}

/** What is taken to hold, with how sure and why; what is only possible; what is not known. */
export function Findings(props: FindingsProps) {
  const { judged, assessment, check, inSight, move, units } = props;
  const holding = inSight.findings;
  const possible = assessment.findings.filter(({ probability }) => probability < holds);
  const unknown = notKnown(judged);
  return (
    <div className={styles.findings}>
      <Decision {...{ assessment, judged, check, move, units }} />
      {holding.length === 0 && <p className={styles.soft}>Nothing found yet. Take the next step.</p>}
      <ul className={styles.findings}>
        {holding.map((finding) => (
          <li
            key={findingKey(finding)}
            className={`${styles.finding} ${blamesNothing(finding.code) ? styles.calm : ''}`}
          >
            <HoldingFinding {...props} finding={finding} />
          </li>
        ))}
      </ul>
      {inSight.asleep.length > 0 && (
        <p className={styles.soft}>
          The car stood, so sensors sleep: that it had nothing from {listWheels(inSight.asleep)} is no fault.
        </p>
      )}
      {possible.length > 0 && (
        <details className={styles.possible}>
          <summary>Also possible: {possible.length}</summary>
          <ul>
            {grouped(possible).map(({ title, chance }) => (
              <li key={title}>
                <span>{title}</span>
                <span className={styles.figure}>{chance}</span>
              </li>
            ))}
          </ul>
        </details>
      )}
      {unknown.length > 0 && <p className={styles.soft}>Not known yet: {unknown.join(', ')}.</p>}
      {(assessment.inconsistencies ?? []).map(({ path, message }) => (
        <p key={path} className={styles.doubt}>
          {message}
        </p>
      ))}
    </div>
  );
}

/** Whether enough is known to act: what the next move is, a check or a deed. */
function Decision({
  assessment: { decision },
  judged,
  check,
  move,
  units,
}: Pick<FindingsProps, 'assessment' | 'judged' | 'check' | 'move' | 'units'>) {
  if (isCheck(move)) {
    const isAsked = 'asked' in move && move.asked !== undefined;
    const isTest = check && !isAsked && move.kind !== 'placard' && wheelOfMove(move) === check.wheel;
    return (
      <p className={styles.decision}>
        <b>Check first</b>
        <span>
          {isTest && check.about
            ? `${capital(testWords(check, triedBefore(judged, check.wheel)))}. It shows whether it is “${titleOf(check.about)}”.`
            : moveWords(move, units).why}
        </span>
      </p>
    );
  }
  if (decision.on.length === 0 || move.kind === 'hand-over' || move.kind === 'done') return null;
  return (
    <p className={styles.decision}>
      <b>Act now</b>
      <span>Enough is known: no check at hand is worth its time any more.</span>
    </p>
  );
}

const wheelOfMove = (move: Move) => ('wheel' in move ? move.wheel : undefined);

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

interface HoldingProps extends Omit<FindingsProps, 'check' | 'move' | 'inSight'> {
  finding: Finding;
}

function HoldingFinding({
  finding,
  judged,
  assessment,
  reasons,
  weighed,
  units,
  shown,
  onShow,
}: HoldingProps) {
  const { code, wheels, probability, evidence } = finding;
  const isShown = shown === findingKey(finding);
  const reason = reasons[findingKey(finding)];
  const changing = couldChange(assessment, finding);
  const inWords = (test: NextTest) => testWords(test, triedBefore(judged, test.wheel));
  const strongest = [...evidence].sort((a, b) => Math.abs(b.decibans) - Math.abs(a.decibans));
  return (
    <>
      <button
        type="button"
        className={styles.head}
        aria-expanded={isShown}
        onClick={() => onShow(isShown ? undefined : findingKey(finding))}
      >
        {isShown ? <ChevronDown aria-hidden="true" /> : <ChevronRight aria-hidden="true" />}
        <b>{titleOf({ code, wheels })}</b>
        <span className={styles.sure}>{sureness(probability)}</span>
      </button>
      {reason && <p>{reason}</p>}
      {isShown && (
        <div className={styles.why}>
          {strongest.length === 0 && !weighed && <p className={styles.soft}>{weighing}</p>}
          <ul>
            {strongest.slice(0, mostEvidence).map(({ observation, decibans }) => {
              const seen = judged.observations[observation];
              const isFor = decibans > 0;
              return (
                seen && (
                  <li key={observation} className={isFor ? styles.for : styles.against}>
                    {isFor ? <ThumbsUp aria-label="For it:" /> : <ThumbsDown aria-label="Against it:" />}
                    <span>{describe(seen, units)}</span>
                    <span className={styles.soft}>{weightWords(decibans)}</span>
                  </li>
                )
              );
            })}
          </ul>
          {strongest.length > mostEvidence && (
            <p className={styles.soft}>and {strongest.length - mostEvidence} more readings.</p>
          )}
          <p className={styles.soft}>
            {changing.length > 0
              ? `It could still turn: ${changing.map(inWords).slice(0, 2).join(', or ')}.`
              : 'No test at hand is likely to turn it; a reading that contradicts it would.'}{' '}
            Chance: {percent(probability)}.
          </p>
        </div>
      )}
      <p className={styles.action}>{finding.action}</p>
    </>
  );
}

/** Findings of one kind that are about as likely at several wheels stand in one line. */
function grouped(findings: readonly Finding[]): { title: string; chance: string }[] {
  const lines = new Map<string, Finding[]>();
  for (const finding of findings) {
    const key = `${finding.code} ${percent(finding.probability)}`;
    lines.set(key, [...(lines.get(key) ?? []), finding]);
  }
  return [...lines.values()].flatMap((same) => {
    const [first] = same;
    if (!first) return [];
    const wheels = same.flatMap((finding) => finding.wheels);
    const title =
      wheels.length > 1
        ? `${recordOf(first.code).title}: ${listWheels(wheels).replace(' and ', ' or ')}`
        : titleOf(first);
    return [{ title, chance: `${percent(first.probability)}${wheels.length > 1 ? ' each' : ''}` }];
  });
}
