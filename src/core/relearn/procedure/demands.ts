import type { Procedure } from '.';

/** It is taught by falling pressure: tires are filled first, and back to target afterwards. */
export const letsAirOut = ({ each }: Procedure): boolean => each.some(({ do: kind }) => kind === 'air');
