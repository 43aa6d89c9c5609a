import type { RepairOutcome } from '../../../job/repair-outcome';
import { faultsOf } from '../../../catalogue/finding';
import type { Job } from '../../../job';
import { contextOf } from '../evidence';
import type { Experience } from './experience';
import { chancesFor } from './priors';

/** The counts of visits whose parts were confirmed; a part nobody spoke of counts for nothing. */
export function experienceOf(visits: readonly { job: Job; parts: readonly RepairOutcome[] }[]): Experience {
  const experience: Experience = {};
  for (const { job, parts } of visits) {
    const chanceOf = chancesFor(contextOf(job, []));
    for (const { part, wheel, was } of parts) {
      for (const code of faultsOf(part)) {
        const count = (experience[code] ??= { had: 0, of: 0, expected: 0 });
        count.of += 1;
        count.had += Number(was === code);
        count.expected += chanceOf(code, wheel);
      }
    }
  }
  return experience;
}
