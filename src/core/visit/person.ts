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

/** A device on which a PIN is enough to sign in. */
export interface PairedDevice {
  id: string;
  name: string;
  pairedAt: string;
  pairedBy: string;
  lastSeenAt: string | null;
}

/** Where somebody is signed in. */
export interface SessionSummary {
  id: string;
  startedAt: string;
  expiresAt: string;
  /** What the browser calls itself. */
  agent: string;
  /** The one that asks. */
  here: boolean;
}
