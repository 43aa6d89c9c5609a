import type { Evidence as Weight } from '../../assessment';
import type { FindingCode } from '../../../catalogue/finding';
import type { Job } from '../../../job';
import type { Position } from '../../../names/wheel';
import { type Judgement, chanceOf } from '../decision';

/** The odds of a probability in decibans: ten times their decimal logarithm. Kept within ±50: no evidence is endless. */
export function decibans(probability: number): number {
  const bounded = Math.min(1 - 1e-5, Math.max(1e-5, probability));
  return 10 * Math.log10(bounded / (1 - bounded));
}

/** An observation that moves a finding by less than this, decibans, is not worth naming: an eighth on the odds. */
export const leastNamed = 0.5;

/**
 * How much each observation speaks for or against a finding: by how many decibans its odds would be other
 * if this one observation had not been made, and all the others had. `judge`: judges a job.
 */
export function weigherOf(
  job: Job,
  judgement: Judgement,
  judge: (job: Job) => Judgement,
): (code: FindingCode, wheels: readonly Position[]) => Weight[] {
  let others: Judgement[] | undefined;
  return (code, wheels) => {
    const first = Math.max(0, job.observations.length - mostWeighed(job, judgement));
    others ??= job.observations.map((_, index) =>
      index < first
        ? judgement
        : judge({ ...job, observations: job.observations.filter((_other, other) => other !== index) }),
    );
    const now = decibans(leastChance(judgement, code, wheels));
    return others.flatMap((without, observation) => {
      const weight = now - decibans(leastChance(without, code, wheels));
      return Math.abs(weight) >= leastNamed ? [{ observation, decibans: weight }] : [];
    });
  };
}

/**
 * So many observations are weighed, the latest: all of them in any visit a person makes. Each costs a judgement,
 * and a job where every scan heard a crowd, or with thousands of readings, must not hold up the shop (judgement).
 */
function mostWeighed({ observations }: Job, { posterior }: Judgement): number {
  return Math.min(100, Math.floor(1200 / posterior.hypotheses), Math.floor(5000 / observations.length));
}

/** The least of the chances a finding has at these wheels; of the car where none are named. */
const leastChance = (judgement: Judgement, code: FindingCode, wheels: readonly Position[]): number =>
  wheels.length === 0
    ? chanceOf(judgement, code)
    : Math.min(...wheels.map((wheel) => chanceOf(judgement, code, wheel)));
