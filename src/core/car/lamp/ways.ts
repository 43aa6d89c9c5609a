import type { Seen } from '../../job';
import { lampWords } from '../../job/words';

/** The ways a lamp is seen, as one choice: a dark one proves nothing before its check at ignition on was watched. */
export const lampWays = {
  off: { words: 'off, after it lit for its check', state: 'off', bulbCheck: true },
  'off-unwatched': { words: 'off; its check was not watched', state: 'off' },
  never: { words: 'never lights, not even at ignition on', state: 'off', bulbCheck: false },
  steady: { words: lampWords.steady, state: 'steady', bulbCheck: true },
  'flash-then-steady': { words: lampWords['flash-then-steady'], state: 'flash-then-steady', bulbCheck: true },
  // It was out meanwhile: nobody saw its check for that.
  'flash-while-driving': { words: lampWords['flash-while-driving'], state: 'flash-while-driving' },
} as const satisfies Record<string, { words: string; state: Seen<'lamp'>['state']; bulbCheck?: boolean }>;

export type LampWay = keyof typeof lampWays;

/** What was seen, without its moment. */
export function lampSeen(way: LampWay): Pick<Seen<'lamp'>, 'kind' | 'state' | 'bulbCheck'> {
  const { state, ...seen }: { state: Seen<'lamp'>['state']; bulbCheck?: boolean } = lampWays[way];
  return { kind: 'lamp', state, ...(seen.bulbCheck !== undefined && { bulbCheck: seen.bulbCheck }) };
}
