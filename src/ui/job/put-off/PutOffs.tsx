import { putOffWords } from '../../../core/visit/put-off/words';
import { Button } from '../../kit/Button';
import styles from '../follows/Follows.module.css';
import type { Sheet } from '../use-sheet';

/** What was put off on this visit, and why; each to be taken back. */
export function PutOffs({ sheet: { job, closed, busy, edit } }: { sheet: Sheet }) {
  const { putOff = [] } = job;
  if (putOff.length === 0) return null;
  const without = (place: number) => putOff.filter((_, other) => other !== place);
  return (
    <ul className={styles.putOff} aria-label="Put off">
      {putOff.map((scope, place) => (
        <li key={`${scope.at} ${place}`}>
          <span>
            Not now: {putOffWords(scope)}. {scope.reason}
            {scope.by && ` (${scope.by})`}
          </span>
          {!closed && (
            <Button disabled={busy !== undefined} onClick={() => void edit({ putOff: without(place) })}>
              Take back
            </Button>
          )}
        </li>
      ))}
    </ul>
  );
}
