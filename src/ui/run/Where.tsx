import type { Position } from '../../core/names/wheel';
import { groupedId } from '../../core/names/sensor-id';
import type { Procedure } from '../../core/relearn/procedure';
import { presentWheel, wheelsTaught, type Run } from '../../core/relearn/run';
import { WheelStrip, type Standing } from '../parts/WheelStrip';
import { LimitClocks } from './Clock';
import styles from './Run.module.css';

/** Where to go, and how long there is for it: in sight whatever else is on the screen. */
export function Where({ procedure, run }: { procedure: Procedure; run: Run }) {
  const { wheels } = procedure;
  const present = presentWheel(procedure, run);
  const taught = wheelsTaught(procedure, run);
  const standing = (wheel: Position): Standing => {
    if (run.differs.includes(wheel) || wheel === run.endedAt) return 'wrong';
    if (run.notKnown.includes(wheel)) return 'unknown';
    if (wheel === present) return 'here';
    if (run.skipped.includes(wheel)) return 'left-out';
    return wheels.indexOf(wheel) < taught ? 'done' : 'to-come';
  };
  const word = (wheel: Position) =>
    run.differs.includes(wheel) ? 'differs' : wheel === run.endedAt ? 'ended' : undefined;
  return (
    <div className={styles.where}>
      {wheels.length > 0 && (
        <WheelStrip
          label="Wheels, in the order they are taught"
          wheels={wheels.map((wheel) => ({
            wheel,
            stands: standing(wheel),
            word: word(wheel),
            found: run.heard[wheel] && groupedId(run.heard[wheel]),
          }))}
        />
      )}
      <LimitClocks procedure={procedure} run={run} />
    </div>
  );
}
