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
  /** Whether a code is asked for at signing in, beside the passphrase; `needed`: the shop asks one of them, and there is none. */
  secondFactor: SecondFactor;
}

export const secondFactors = ['none', 'on', 'needed'] as const;
export type SecondFactor = (typeof secondFactors)[number];

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
