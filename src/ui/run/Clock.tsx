import type { Procedure } from '../../core/relearn/procedure';
import { limitClocks, type Run, type RunClock } from '../../core/relearn/run';
import { limitWords } from '../../core/relearn/run/words';
import styles from './Clock.module.css';

/** What a clock says of now: too soon, in its window, or nearly over. */
function standingOf({ elapsedS, leastS, mostS }: RunClock): 'soon' | 'now' | 'late' {
  if (leastS !== undefined && elapsedS < leastS) return 'soon';
  return mostS !== undefined && mostS - elapsedS < Math.min(5, mostS / 4) ? 'late' : 'now';
}

/** The window of the open step as a running clock: the seconds large, a bar with least and most on it. */
export function BigClock({ clock }: { clock: RunClock }) {
  const { elapsedS, leastS, mostS } = clock;
  const end = mostS ?? Math.max(leastS ?? 0, 1);
  const share = (s: number) => `${Math.min(100, (s / end) * 100).toFixed(1)}%`;
  const standing = standingOf(clock);
  return (
    <div className={styles.clock} data-standing={standing} role="timer" aria-label={spoken(clock)}>
      <span className={styles.seconds} aria-hidden="true">
        {seconds(counted(clock))}
      </span>
      <span className={styles.words}>{spoken(clock)}</span>
      <span className={styles.bar} aria-hidden="true">
        <span className={styles.gone} style={{ inlineSize: share(elapsedS) }} />
        {leastS !== undefined && mostS !== undefined && (
          <span className={styles.least} style={{ insetInlineStart: share(leastS) }} />
        )}
      </span>
    </div>
  );
}

/** Up to the least it counts down to that; then down to the most; else up. */
const counted = ({ elapsedS, leastS, mostS }: RunClock): number =>
  leastS !== undefined && elapsedS < leastS
    ? leastS - elapsedS
    : mostS !== undefined
      ? Math.max(0, mostS - elapsedS)
      : elapsedS;

function spoken({ elapsedS, leastS, mostS }: RunClock): string {
  if (leastS !== undefined && elapsedS < leastS) return 'still to go';
  if (mostS !== undefined && elapsedS > mostS) return 'too long';
  if (mostS !== undefined) return 'left';
  return 'long enough';
}

/** Seconds, and minutes from a hundred seconds on. */
export function seconds(s: number): string {
  const whole = Math.ceil(s - 1e-9);
  if (whole < 100) return `${whole} s`;
  return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, '0')} min`;
}

/** What the car allows, running down. */
export function LimitClocks({ procedure, run }: { procedure: Procedure; run: Run }) {
  const running = limitClocks(procedure, run);
  if (running.length === 0) return null;
  return (
    <dl className={styles.limits} aria-label="What the car allows">
      {running.map(({ limit, clock }) => (
        <div key={limit} data-standing={standingOf(clock)}>
          <dt>{limitWords[limit]}</dt>
          <dd>{seconds(Math.max(0, clock.mostS - clock.elapsedS))}</dd>
        </div>
      ))}
    </dl>
  );
}
