import type { Procedure } from '.';

/** What a procedure needs of the tires before, and does to them: filled first, and back to target afterwards. */

/** Tires are filled to about this before air is let out of them, kPa (common practice): each loses some. */
export const raiseToKPa = 260;

/** It is taught by falling pressure. */
export const letsAirOut = ({ each }: Procedure): boolean => each.some(({ do: kind }) => kind === 'air');
