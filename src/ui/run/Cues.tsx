import { legendOf, phases, type CueMeaning, type Procedure } from '../../core/relearn/procedure';
import { cueWords, meaningWords, phaseWords } from '../../core/relearn/procedure/words';
import { phaseOf, type Run } from '../../core/relearn/run';
import styles from './Cues.module.css';
import type { RunOnScreen } from './use-run';

const bad: readonly CueMeaning[] = ['failed', 'expired', 'refused'];

/** One button for each cue that can be heard now, with what it means on this car at this moment. */
export function Cues({ on: { procedure, run, tell } }: { on: RunOnScreen }) {
  const phase = phaseOf(run);
  const heardNow = phase ? legendOf(procedure, phase) : [];
  if (heardNow.length === 0) return null;
  return (
    <div className={styles.cues} role="group" aria-label="What the car says now">
      {heardNow.map(({ cue, means }, at) => (
        <button
          key={cue}
          type="button"
          data-cue={at + 1}
          className={bad.includes(means) ? styles.bad : styles.good}
          onClick={() => tell({ event: 'cue', cue })}
        >
          <kbd aria-hidden="true">{at + 1}</kbd>
          <b>{cueWords(cue)}</b>
          <span>{meaningWords[means]}</span>
        </button>
      ))}
    </div>
  );
}

/** All that this car can say, phase by phase: the same cue may mean another thing later. */
export function Legend({ procedure, run }: { procedure: Procedure; run: Run }) {
  if (procedure.cues.length === 0) return null;
  const now = phaseOf(run);
  const parts = [
    ...phases.map((phase) => ({
      phase,
      cues: procedure.cues.filter(({ during }) => during === phase),
    })),
    { phase: undefined, cues: procedure.cues.filter(({ during }) => during === undefined) },
  ].filter(({ cues }) => cues.length > 0);
  return (
    <dl className={styles.legend} aria-label="What this car’s cues mean">
      {parts.map(({ phase, cues }) => (
        <div key={phase ?? 'always'} aria-current={phase !== undefined && phase === now ? 'step' : undefined}>
          <dt>{phase ? phaseWords[phase] : 'At any time'}</dt>
          {cues.map(({ cue, means }) => (
            <dd key={cue} className={bad.includes(means) ? styles.wrong : undefined}>
              <b>{cueWords(cue)}</b>: {meaningWords[means]}
            </dd>
          ))}
        </div>
      ))}
    </dl>
  );
}
