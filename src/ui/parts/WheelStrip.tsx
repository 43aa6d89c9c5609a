import { ArrowDown, Check, CircleSlash, X } from 'lucide-react';
import type { ReactNode } from 'react';
import { positionName, type Position } from '../../core/names/wheel';
import styles from './WheelStrip.module.css';

/** Where a wheel stands in what is done wheel by wheel. */
export type Standing = 'here' | 'done' | 'left-out' | 'to-come' | 'wrong' | 'unknown';

const words: Record<Standing, string> = {
  here: 'go here',
  done: 'done',
  'left-out': 'left out',
  'to-come': 'to come',
  wrong: 'not right',
  unknown: 'not known',
};
const shapes: Partial<Record<Standing, ReactNode>> = {
  here: <ArrowDown aria-hidden="true" />,
  done: <Check aria-hidden="true" />,
  'left-out': <CircleSlash aria-hidden="true" />,
  wrong: <X aria-hidden="true" />,
};

interface WheelOnStrip {
  wheel: Position;
  stands: Standing;
  /** A word that says it better than the usual one. */
  word?: string | undefined;
  /** What was found there: its ID. */
  found?: string | undefined;
}

/** The wheels in walking order, with the one to go to. */
export function WheelStrip({ wheels, label }: { wheels: readonly WheelOnStrip[]; label: string }) {
  return (
    <ol className={styles.strip} aria-label={label}>
      {wheels.map(({ wheel, stands, word = words[stands], found }) => (
        <li key={wheel} className={styles[stands]} aria-current={stands === 'here' ? 'step' : undefined}>
          <b title={positionName[wheel]}>{wheel}</b>
          <span className={styles.word}>
            {shapes[stands]}
            {word}
          </span>
          {found !== undefined && <span className={`figures ${styles.found}`}>{found}</span>}
        </li>
      ))}
    </ol>
  );
}
