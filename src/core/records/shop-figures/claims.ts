import { verdictOn, type Experience } from '../../judgement/diagnosis';
import { faultsOf } from '../../catalogue/finding';
import type { Job } from '../../job';
import type { Claim } from '../../measure/reliability';
import { repairOutcomesOf } from '../../job/repair-outcome';
import { changesOf, firstOf, ofKind } from '../../job/history';

/** What was said of the parts of a car before anything was changed, against what they turned out to be. */
export interface Claims {
  claims: Claim[];
  /** Faults that were there, of which nothing was said. */
  missed: number;
}

/** Of the parts somebody had in hand alone: of the others nobody knows. */
export function claimsOf(job: Job, experience?: Experience): Claims {
  const outcomes = repairOutcomesOf(job);
  if (outcomes.length === 0) return { claims: [], missed: 0 };
  const { findings } = verdictOn(beforeChanges(job), experience);
  const said = outcomes.flatMap(({ part, wheel, was }) =>
    faultsOf(part).map((code) => ({
      chance: findings.find(
        (finding) => finding.code === code && (wheel === undefined || finding.wheels.includes(wheel)),
      )?.probability,
      true: was === code,
    })),
  );
  return {
    claims: said.flatMap(({ chance, ...rest }) => (chance === undefined ? [] : [{ chance, ...rest }])),
    missed: said.filter((one) => one.true && one.chance === undefined).length,
  };
}

/** The job as it stood before the first fill and the first write. */
export function beforeChanges(job: Job): Job {
  const changes = changesOf(job);
  const written = firstOf(ofKind(changes, 'write'));
  const touched = Math.min(written, firstOf(ofKind(changes, 'air')));
  const rest = { ...job, carWrites: [] };
  return {
    ...rest,
    observations: job.observations.filter((seen) => {
      const at = Date.parse(seen.at);
      // Air changes what gauge, sensor and lamp say afterwards; what the car holds changes by a write only.
      return at < (seen.kind === 'registry' || seen.kind === 'dtc' ? written : touched);
    }),
  };
}
