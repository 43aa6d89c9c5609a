import type { Finding } from '../../../core/judgement/assessment';
import type { Job } from '../../../core/job';
import { cellsOf, type Source } from '../../../core/visit/observation';
import type { Position } from '../../../core/names/wheel';

export type Speaks = 'for' | 'against';

/** The cells of the ledger that speak for a finding, or against it. */
export function cellsThatSpeak(
  job: Job,
  finding: Finding | undefined,
): (source: Source, wheel: Position) => Speaks | undefined {
  const cells = new Map<string, number>();
  const add = (source: Source, wheel: Position, decibans: number) =>
    cells.set(`${source} ${wheel}`, (cells.get(`${source} ${wheel}`) ?? 0) + decibans);
  for (const { observation, decibans } of finding?.evidence ?? []) {
    const seen = job.observations[observation];
    for (const { source, wheel } of seen ? cellsOf(seen) : []) {
      // What the car holds speaks for a finding at the wheels it names only.
      if (source !== 'held' || speaksAt(finding, wheel)) add(source, wheel, decibans);
    }
  }
  return (source, wheel) => {
    const weight = cells.get(`${source} ${wheel}`);
    return weight === undefined ? undefined : weight > 0 ? 'for' : 'against';
  };
}

/** What the car holds speaks for a finding at the wheels it names; of the car, at all. */
const speaksAt = (finding: Finding | undefined, wheel: Position): boolean =>
  finding === undefined || finding.wheels.length === 0 || finding.wheels.includes(wheel);
