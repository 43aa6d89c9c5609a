import type { Notation } from '../measure/units';

export const roles = ['technician', 'adviser', 'manager'] as const;
export type Role = (typeof roles)[number];

/** What a role may do beyond looking, booking in and handing over. */
export const rights = {
  'record-readings': ['technician', 'manager'],
  'change-a-car': ['technician', 'manager'],
  'manage-people': ['manager'],
  'manage-shop': ['manager'],
  'see-figures': ['manager'],
} as const satisfies Record<string, readonly Role[]>;
export type Right = keyof typeof rights;

/** Who works here, as a screen knows them. */
export interface Person {
  id: string;
  name: string;
  role: Role;
  /** Their own, or the shop's where they chose none. */
  units: Notation;
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
