import type { UnitChoice } from '../units';

/** Who works here, as a screen knows them. */
export interface Person {
  id: string;
  name: string;
  role: 'technician' | 'adviser' | 'manager';
  units: UnitChoice;
}
