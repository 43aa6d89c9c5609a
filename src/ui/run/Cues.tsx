import { useState } from 'react';
import { legendOf, phases, type CueMeaning, type Procedure } from '../../core/relearn/procedure';
import { cueWords, meaningWords, phaseWords } from '../../core/relearn/procedure/words';
import { isSecondTap, openStep, phaseOf, presentWheel, type Run } from '../../core/relearn/run';
import { Button } from '../kit/Button';
import { Dialog } from '../kit/Dialog';
import styles from './Cues.module.css';
import runStyles from './Run.module.css';
import { useHeld } from './use-held';
import type { RunOnScreen } from './use-run';

/** What ends the run: no slip of a thumb does that. */
const ends: readonly CueMeaning[] = ['failed', 'expired'];
const bad: readonly CueMeaning[] = [...ends, 'refused'];

/** One button for each cue that can be heard now, with what it means on this car at this moment. */
export function Cues({ on }: { on: RunOnScreen }) {
  const { procedure, run, tell, busy } = on;
  const [asking, setAsking] = useState<{ cue: string; wheel: string }>();
  const phase = phaseOf(run);
  const heardNow = phase ? legendOf(procedure, phase) : [];
  if (heardNow.length === 0) return null;
  const says = (cue: string, means: CueMeaning) => {
    // While it is being woken the car may speak before the tool has.
    const wheel = busy === undefined ? unheardWheel(procedure, run) : undefined;
    if (means === 'accepted' && wheel) setAsking({ cue, wheel });
    else tell({ event: 'cue', cue });
  };
  return (
    <>
      <div className={styles.cues} role="group" aria-label="What the car says now">
        {heardNow.map(({ cue, means }, at) => {
          const Cue = ends.includes(means) ? HeldCue : PressedCue;
          return (
            <Cue
              key={cue}
              cue={cue}
              means={means}
              digit={at + 1}
              isCounted={isSecondTap(run, cue)}
              onSaid={() => says(cue, means)}
            />
          );
        })}
      </div>
      {asking && (
        <Dialog title={`Nobody has woken ${asking.wheel}`} onClose={() => setAsking(undefined)}>
          <p>
            If the car took it without, only reading the car can tell which sensor it learned there. Did it
            say “{cueWords(asking.cue)}”?
          </p>
          <div className={runStyles.actions}>
            <Button weight="main" onClick={() => setAsking(undefined)}>
              No, wake it first
            </Button>
            <Button
              onClick={() => {
                tell({ event: 'cue', cue: asking.cue });
                setAsking(undefined);
              }}
            >
              Yes, the car took {asking.wheel}
            </Button>
          </div>
        </Dialog>
      )}
    </>
  );
}

/** The present wheel, where its sensor is to be woken and nobody has; a cue that is waited for comes after that. */
function unheardWheel(procedure: Procedure, run: Run): string | undefined {
  const wheel = presentWheel(procedure, run);
  const wakes = procedure.each.some(({ do: kind }) => kind === 'wake');
  return wheel && wakes && run.heard[wheel] === undefined && openStep(procedure, run)?.do !== 'cue'
    ? wheel
    : undefined;
}

interface CueProps {
  cue: string;
  means: CueMeaning;
  /** The key it has. */
  digit: number;
  /** It was told this moment: a second tap is none. */
  isCounted: boolean;
  onSaid: () => void;
}

const PressedCue = ({ cue, means, digit, isCounted, onSaid }: CueProps) => (
  <button
    type="button"
    data-cue={digit}
    className={bad.includes(means) ? styles.bad : styles.good}
    disabled={isCounted}
    onClick={onSaid}
  >
    <CueFace cue={cue} digit={digit} says={isCounted ? 'told' : meaningWords[means]} />
  </button>
);

function HeldCue({ cue, means, digit, isCounted, onSaid }: CueProps) {
  const { isArmed, held } = useHeld(onSaid);
  return (
    <button type="button" data-cue={digit} className={styles.bad} disabled={isCounted} {...held}>
      <CueFace
        cue={cue}
        digit={digit}
        says={`${meaningWords[means]}: ${isArmed ? 'press once more' : 'hold for a second'}`}
      />
    </button>
  );
}

const CueFace = ({ cue, digit, says }: { cue: string; digit: number; says: string }) => (
  <>
    <kbd aria-hidden="true">{digit}</kbd>
    <b>{cueWords(cue)}</b>
    <span>{says}</span>
  </>
);

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
            <dd key={cue}>
              <b>{cueWords(cue)}</b>: {meaningWords[means]}
            </dd>
          ))}
        </div>
      ))}
    </dl>
  );
}
