import { Undo2 } from 'lucide-react';
import { canonicalCue, legendOf } from '../../core/relearn/procedure';
import { cueWords } from '../../core/relearn/procedure/words';
import { lastAct, phaseOf } from '../../core/relearn/run';
import { eventWords } from '../../core/relearn/run/words';
import { Button } from '../kit/Button';
import styles from './Run.module.css';
import type { RunOnScreen } from './use-run';

/** The last act, for half a minute: taken back in one touch, or put right where it was another cue. */
export function TakeBack({ on: { procedure, run, tell, view } }: { on: RunOnScreen }) {
  const last = lastAct(run);
  if (!last || view.closed) return null;
  const { event, before } = last;
  const others =
    event.event === 'cue'
      ? legendOf(procedure, phaseOf(before)).filter(
          ({ cue }) => canonicalCue(cue) !== canonicalCue(event.cue),
        )
      : [];
  return (
    <div className={styles.actions} role="group" aria-label="The last act">
      <Button onClick={() => tell({ event: 'back' })}>
        <Undo2 aria-hidden="true" /> Take back: {eventWords(event)}
      </Button>
      {others.map(({ cue }) => (
        <Button key={cue} onClick={() => tell({ event: 'back', instead: { event: 'cue', cue } })}>
          It was {cueWords(cue)}
        </Button>
      ))}
    </div>
  );
}
