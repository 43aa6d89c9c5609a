import { judged } from '../../measure/figure';
import type { Answer } from './record';

/** How often a test says yes where a finding is true, and where it is not. */
export const answer = (ifTrue: number, ifFalse: number, why: string): Answer => ({
  ifTrue: judged(ifTrue, why),
  ifFalse: judged(ifFalse, why),
});

/** Reasons that several findings share. */
export const unlitLamp = 'a dark lamp clears, a lit one only warns';
export const digitByDigit = 'digit by digit, once both sides are known';
export const emptyOnDrive = 'the one that stays empty on a drive';
