import { placardKPa, type Placarded } from '../../../job/placard';
import type { Procedure } from '../../../relearn/procedure';
import { letsAirOut } from '../../../relearn/procedure/demands';
import { roadWheels, type Position } from '../../../names/wheel';

/**
 * Each tire is filled so far above its placard before air is let out of it, kPa: it is then at placard once it has lost as
 * much, and the lamp has no reason to come on (common practice: about 260 where the placard says 230).
 */
const raiseByKPa = 30;
/** Where nobody knows the placard (common practice). */
const usualKPa = 260;

/** Wheels that are filled alike, and how far. */
export interface FillFirst {
  kPa: number;
  wheels: Position[];
}

/** How far the wheels are filled before a procedure that lets air out of them, those alike together; else nothing. */
export function fillFirst(job: Placarded, procedure: Procedure): FillFirst[] {
  if (!letsAirOut(procedure)) return [];
  const taught = procedure.wheels.length > 0 ? procedure.wheels : roadWheels;
  const found: FillFirst[] = [];
  for (const wheel of taught) {
    const placard = placardKPa(job, wheel);
    const kPa = placard === undefined ? usualKPa : placard + raiseByKPa;
    const alike = found.find((one) => one.kPa === kPa);
    if (alike) alike.wheels.push(wheel);
    else found.push({ kPa, wheels: [wheel] });
  }
  return found;
}
