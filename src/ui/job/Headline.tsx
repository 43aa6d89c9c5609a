import { CircleCheck } from 'lucide-react';
import { sureness } from '../../core/judgement/assessment/words';
import { titleOf } from '../../core/catalogue/finding';
import { damageLeft, isCheck } from '../../core/visit/shown';
import { moveWords } from '../../core/visit/words';
import styles from './JobSheet.module.css';
import type { Sheet } from './use-sheet';

/**
 * What matters most, above the ledger: that the visit is proved; else what the next move is about, and what else was
 * found so far.
 */
export function Headline({ sheet: { proof, closed, shown, move, units, judged } }: { sheet: Sheet }) {
  if (proof.proved && !closed) {
    return (
      <p className={styles.proved} role="status">
        <CircleCheck aria-hidden="true" /> Proved: everything was checked and is right
      </p>
    );
  }
  const { findings, subject } = shown;
  const [first, ...others] = findings;
  const left = damageLeft(judged.job, findings, units);
  if (!subject && isCheck(move)) {
    return (
      <Line
        text={`Check first: ${uncapital(moveWords(move, units).label)}`}
        more={[
          first && `so far ${uncapital(titleOf(first))}`,
          others.length > 0 && `${others.length} more`,
          left,
        ]}
      />
    );
  }
  return (
    <Line
      text={first ? titleOf(first) : (left ?? 'Nothing found yet')}
      more={[
        first && sureness(first.probability),
        others.length > 0 && `${others.length} more`,
        first && left,
      ]}
    />
  );
}

function Line({ text, more }: { text: string; more: readonly (string | false | undefined)[] }) {
  return (
    <a className={styles.headline} href="#follows">
      <b>{text}</b>
      <span>{more.filter(Boolean).join(', ')}</span>
    </a>
  );
}

const uncapital = (text: string): string => text.charAt(0).toLowerCase() + text.slice(1);
