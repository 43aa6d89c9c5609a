import type { FindingCode, Mismatch } from '../assessment';
import type { Job } from '../job';
import type { Ledger } from '../ledger';
import { ledgerOf } from '../ledger';
import { monitoredWheels, wheelsOf } from '../placard';
import { compareRegistration } from '../registration';
import type { Position } from '../wheel';
import type { Certainty } from './certainty';

/** All a rule looks at, worked out once. */
export interface Scene {
  job: Job;
  ledger: Ledger;
  /** The wheels to walk round. */
  wheels: Position[];
  /** The wheels that should have a sensor. */
  monitored: Position[];
  mismatches: Mismatch[];
}

/** What a rule states about a wheel (or, with no wheel, about the car). */
export interface Statement {
  code: FindingCode;
  wheel?: Position;
  certainty: Certainty;
  /** The observations it rests on, as indices into the job. */
  because: number[];
}

/** A rule states what it can tell, and nothing where it cannot. */
export type Rule = (scene: Scene) => Statement[];

export function sceneOf(job: Job): Scene {
  const ledger = ledgerOf(job);
  return {
    job,
    ledger,
    wheels: wheelsOf(job),
    monitored: monitoredWheels(job),
    mismatches: compareRegistration(job, ledger)?.mismatches ?? [],
  };
}
