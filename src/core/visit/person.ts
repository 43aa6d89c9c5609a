import type { UnitChoice } from '../units';

export const roles = ['technician', 'adviser', 'manager'] as const;
export type Role = (typeof roles)[number];

/** Who works here, as a screen knows them. */
export interface Person {
  id: string;
  name: string;
  role: Role;
  /** Their own, or the shop's where they chose none. */
  units: UnitChoice;
  ownUnits: boolean;
}
