import type { Procedure } from '../../core/relearn/procedure';
import { presentWheel, wheelsTaught, type Run } from '../../core/relearn/run';
import { groupedId } from '../../core/names/sensor-id';
import type { Position } from '../../core/names/wheel';
import styles from './CarPlan.module.css';

/** Where each wheel stands on the plan, seen from above, the front up. */
const places: Record<Position, { x: number; y: number }> = {
  LF: { x: 18, y: 30 },
  RF: { x: 122, y: 30 },
  RR: { x: 122, y: 118 },
  LR: { x: 18, y: 118 },
  SP: { x: 70, y: 150 },
};

const sideOf = (wheel: Position): 'left' | 'right' | 'middle' =>
  places[wheel].x < 60 ? 'left' : places[wheel].x > 80 ? 'right' : 'middle';

type Standing = 'here' | 'done' | 'left-out' | 'to-come' | 'differs';
const words: Record<Standing, string> = {
  here: 'go here',
  done: 'done',
  'left-out': 'left out',
  'to-come': '',
  differs: 'differs',
};

/** The car from above, with the wheel to go to. */
export function CarPlan({ procedure, run }: { procedure: Procedure; run: Run }) {
  const { wheels } = procedure;
  if (wheels.length === 0) return null;
  const present = presentWheel(procedure, run);
  const taught = wheelsTaught(procedure, run);
  const standing = (wheel: Position): Standing => {
    if (run.differs.includes(wheel)) return 'differs';
    if (wheel === present) return 'here';
    if (run.skipped.includes(wheel)) return 'left-out';
    return wheels.indexOf(wheel) < taught ? 'done' : 'to-come';
  };
  return (
    <figure className={styles.plan}>
      <svg
        viewBox={`0 0 160 ${wheels.includes('SP') ? 184 : 158}`}
        role="img"
        aria-label={describe(wheels, standing)}
      >
        <path className={styles.body} d="M44 20 Q80 4 116 20 L120 60 L118 140 Q80 152 42 140 L40 60 Z" />
        <path className={styles.glass} d="M52 62 Q80 52 108 62 L104 76 Q80 70 56 76 Z" />
        <text className={styles.front} x="80" y="38">
          front
        </text>
        {wheels.map((wheel) => {
          const { x, y } = places[wheel];
          const stands = standing(wheel);
          return (
            <g key={wheel} className={styles[stands]}>
              <rect x={x} y={y} width="20" height="32" rx="4" />
              <text x={x + 10} y={y + 20}>
                {wheel}
              </text>
              <text className={`${styles.word} ${styles[sideOf(wheel)]}`} x={x + 10} y={y - 5}>
                {words[stands]}
              </text>
            </g>
          );
        })}
      </svg>
      <figcaption>
        {wheels.map((wheel) => {
          const id = run.heard[wheel];
          return id === undefined ? null : (
            <span key={wheel}>
              <b>{wheel}</b> <span className="figures">{groupedId(id)}</span>
            </span>
          );
        })}
      </figcaption>
    </figure>
  );
}

const describe = (wheels: readonly Position[], standing: (wheel: Position) => Standing): string =>
  `The car from above. ${wheels.map((wheel) => `${wheel} ${words[standing(wheel)] || 'to come'}`).join(', ')}.`;
