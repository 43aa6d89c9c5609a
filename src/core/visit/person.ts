import type { UnitChoice } from '../units';

/** Who works here, as a screen knows them. */
export interface Person {
  id: string;
  name: string;
  role: 'technician' | 'adviser' | 'manager';
  /** Their own, or the shop's where they chose none. */
  units: UnitChoice;
  ownUnits: boolean;
}
