import { CircleCheck } from 'lucide-react';
import { sureness } from '../../core/assessment/words';
import { testWords, triedBefore } from '../../core/diagnosis/explanation/checks';
import { titleOf, toRead } from '../../core/finding';
import styles from './JobSheet.module.css';
import type { Sheet } from './use-sheet';

/** What matters most, above the ledger: that the visit is proved; else, where the findings stand below it, the first of them. */
export function Headline({ sheet: { proof, closed, findings, check, judged } }: { sheet: Sheet }) {
  if (proof.proved && !closed) {
    return (
      <p className={styles.proved} role="status">
        <CircleCheck aria-hidden="true" /> Proved: everything was checked and is right
      </p>
    );
  }
  const [first, ...others] = toRead(findings);
  const text = first
    ? titleOf(first)
    : check
      ? `Check first: ${testWords(check, triedBefore(judged.job, check.wheel))}`
      : 'Nothing found yet';
  return (
    <a className={styles.headline} href="#follows">
      <b>{text}</b>
      <span>
        {first && sureness(first.probability)}
        {others.length > 0 && `, ${others.length} more`}
      </span>
    </a>
  );
}
