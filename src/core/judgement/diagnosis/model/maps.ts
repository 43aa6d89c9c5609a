import { judged, practice } from '../../../measure/figure';
import type { Position } from '../../../names/wheel';

/**
 * How wheels get about: each pattern takes the position the car knows to where that wheel is now. Shares
 * among cars whose wheels moved; what is left is spread over all other orders.
 */
export const patterns: {
  name: string;
  share: ReturnType<typeof judged>;
  moves: Partial<Record<Position, Position>>;
}[] = [
  {
    name: 'front to rear, each on its side',
    share: practice(0.36, 'the usual rotation, and the only one for directional tires'),
    moves: { LF: 'LR', LR: 'LF', RF: 'RR', RR: 'RF' },
  },
  {
    name: 'fronts straight back, rears across',
    share: practice(0.1, 'front-driven cars'),
    moves: { LF: 'LR', RF: 'RR', LR: 'RF', RR: 'LF' },
  },
  {
    name: 'rears straight forward, fronts across',
    share: practice(0.1, 'rear-driven cars'),
    moves: { LF: 'RR', RF: 'LR', LR: 'LF', RR: 'RF' },
  },
  {
    name: 'crosswise',
    share: practice(0.07, 'light cars'),
    moves: { LF: 'RR', RR: 'LF', RF: 'LR', LR: 'RF' },
  },
  { name: 'fronts exchanged', share: judged(0.05, 'one axle done'), moves: { LF: 'RF', RF: 'LF' } },
  { name: 'rears exchanged', share: judged(0.05, 'one axle done'), moves: { LR: 'RR', RR: 'LR' } },
  {
    name: 'left and right exchanged',
    share: judged(0.03, 'both axles'),
    moves: { LF: 'RF', RF: 'LF', LR: 'RR', RR: 'LR' },
  },
  { name: 'left side exchanged', share: judged(0.06, 'one side done'), moves: { LF: 'LR', LR: 'LF' } },
  { name: 'right side exchanged', share: judged(0.06, 'one side done'), moves: { RF: 'RR', RR: 'RF' } },
];
