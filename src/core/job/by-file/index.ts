import type { z } from 'zod';
import type { Job } from '..';
import type { byFileSchema } from '../../names/by-file';

/**
 * Facts that came by a file. They are somebody else's word: a diagnosis may rest on them, and what they say against a car
 * counts; that a car is put right, they never prove.
 */
export type ByFile = z.infer<typeof byFileSchema>;

interface Marked {
  byFile?: ByFile | undefined;
}

/** The file with every fact of it marked, for good: it goes along when the job is written to a file again. */
export function markedByFile(file: Job, byFile: ByFile): Job {
  const mark = <Fact extends object>(fact: Fact): Fact & Marked => ({ ...fact, byFile });
  const { corrected, history, carWrites, runs, sensorServices, confirmations } = file;
  return {
    ...file,
    // What it proved elsewhere is their word as well.
    visit: { ...file.visit, byFile, proof: undefined },
    observations: file.observations.map(mark),
    ...(corrected && {
      corrected: corrected.map((one) => ({ ...one, observation: mark(one.observation) })),
    }),
    ...(history && { history: history.map(mark) }),
    ...(carWrites && { carWrites: carWrites.map(mark) }),
    ...(runs && { runs: runs.map(mark) }),
    ...(sensorServices && { sensorServices: sensorServices.map(mark) }),
    ...(confirmations && { confirmations: confirmations.map(mark) }),
  };
}

/** The lists of facts that a shop makes itself. What was seen at earlier visits is history to both. */
const factsOf = ({ observations, carWrites, runs, sensorServices, confirmations }: Job): Marked[] => [
  ...observations,
  ...(carWrites ?? []),
  ...(runs ?? []),
  ...(sensorServices ?? []),
  ...(confirmations ?? []),
];

export const hasFactsByFile = (job: Job): boolean =>
  job.visit?.byFile !== undefined || factsOf(job).some(({ byFile }) => byFile);

/** The job without what came by a file: what was seen and done here. */
export function madeHere(job: Job): Job {
  if (!hasFactsByFile(job)) return job;
  const own = <Fact extends Marked>(facts: readonly Fact[]): Fact[] => facts.filter(({ byFile }) => !byFile);
  const { carWrites, runs, sensorServices, confirmations } = job;
  return {
    ...job,
    observations: own(job.observations),
    ...(carWrites && { carWrites: own(carWrites) }),
    ...(runs && { runs: own(runs) }),
    ...(sensorServices && { sensorServices: own(sensorServices) }),
    ...(confirmations && { confirmations: own(confirmations) }),
  };
}
