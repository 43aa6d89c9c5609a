import type { Target } from '../assessment';
import { tireCelsius } from '../gauge';
import { altitudeOf, type Job } from '../job';
import type { Ledger } from '../ledger';
import { pressureToSet } from '../pressure';
import { placardKPa, wheelsOf } from '../placard';

/** The temperature at which the tire shall stand at placard: of now, or of the coldest hour to come. */
export function policyCelsius(job: Job): number | undefined {
  const { climate } = job;
  return climate?.fillPolicy === 'morning' ? (climate.overnightLowC ?? climate.nowC) : climate?.nowC;
}

/**
 * For each wheel with a placard figure, what to set now. The tire's temperature is that of its last
 * reading; without one, a tire is taken to stand at the outdoor temperature.
 */
export function targetsFor(job: Job, ledger: Ledger): Target[] {
  return wheelsOf(job).flatMap((wheel): Target[] => {
    const coldKPa = placardKPa(job, wheel);
    if (coldKPa === undefined) return [];
    const reading = ledger.gauge[wheel]?.seen;
    const tireC = reading ? tireCelsius(job, reading) : job.climate?.nowC;
    const policyC = policyCelsius(job);
    if (policyC === undefined || tireC === undefined) {
      // A cold tire, and nobody knows how cold: the placard figure is what "cold" means.
      if (reading?.tire === 'warm') return [{ wheel, coldKPa }];
      return [{ wheel, coldKPa, setNowKPa: coldKPa, ...(reading && { addKPa: coldKPa - reading.kPa }) }];
    }
    const setNowKPa = pressureToSet(coldKPa, policyC, tireC, altitudeOf(job));
    return [{ wheel, coldKPa, setNowKPa, ...(reading && { addKPa: setNowKPa - reading.kPa }) }];
  });
}
