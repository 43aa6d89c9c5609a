import type { Inconsistency } from '../../../job/inconsistency';
import type { Job } from '../../../job';
import { wheelsOf, monitoredWheels } from '../../../job/placard';
import { canonicalId } from '../../../names/sensor-id';
import { isSpareAt } from '../../../job/spare';
import { roadWheels, type Position } from '../../../names/wheel';

/**
 * What in a job cannot all be true, with where: such figures are left out of the judgement, or used as far
 * as they make sense, and said so. The paths are those of the job file.
 */
export function inconsistenciesOf(job: Job): Inconsistency[] {
  const found: Inconsistency[] = [];
  const say = (path: string, message: string) => found.push({ path, message });
  const wheels = wheelsOf(job);
  const monitored = monitoredWheels(job);
  const { kind } = job.vehicle.tpms;
  const lacks = (wheel: Position) => !wheels.includes(wheel);

  if (kind === 'direct' && job.vehicle.tpms.positions?.length === 0) {
    say('vehicle.tpms.positions', 'A direct system has sensors: name the wheels that should have one.');
  }
  const { lowOnKPa, lowOffKPa, highOnKPa } = job.vehicle.tpms;
  if (lowOnKPa !== undefined && lowOffKPa !== undefined && lowOffKPa < lowOnKPa) {
    say(
      'vehicle.tpms.lowOffKPa',
      'The lamp cannot go out below where it comes on: look the two figures up again.',
    );
  }
  for (const [place, line] of (job.placard ?? []).entries()) {
    if (highOnKPa !== undefined && line.position !== 'spare' && line.coldKPa > highOnKPa) {
      say(
        `placard.${place}.coldKPa`,
        'Placard is above the figure at which the lamp warns of too much air: check both.',
      );
    }
    if ((job.placard ?? []).findIndex(({ position }) => position === line.position) < place) {
      say(`placard.${place}.position`, `The placard has two lines for ${line.position}: the first is used.`);
    }
  }
  for (const [place, { wheel, id }] of (job.sensors ?? []).entries()) {
    if (wheel && lacks(wheel))
      say(`sensors.${place}.wheel`, `This car has no ${wheel}: the record is left out.`);
    if (wheel && (job.sensors ?? []).findIndex((other) => other.wheel === wheel) < place) {
      say(`sensors.${place}.wheel`, `Two sensors are on record for ${wheel}: the first is used.`);
    }
    if ((job.sensors ?? []).findIndex((other) => canonicalId(other.id) === canonicalId(id)) < place) {
      say(`sensors.${place}.id`, 'This ID is on record twice.');
    }
  }
  let before = Number.NEGATIVE_INFINITY;
  for (const [place, seen] of job.observations.entries()) {
    const path = `observations.${place}`;
    const at = Date.parse(seen.at);
    if (before - at > outOfOrderMs)
      say(`${path}.at`, 'Earlier than what stands before it: what is latest by the clock is taken as now.');
    before = Math.max(before, at);
    if ('wheel' in seen && seen.wheel !== undefined && lacks(seen.wheel as Position)) {
      say(`${path}.wheel`, `This car has no ${seen.wheel as string}: the observation is left out.`);
    }
    switch (seen.kind) {
      case 'registry': {
        const known: readonly Position[] = monitored.length > 0 ? monitored : roadWheels;
        for (const [entry, { wheel }] of seen.entries.entries()) {
          if (!known.includes(wheel) && !isSpareAt(job, wheel)) {
            say(
              `${path}.entries.${entry}.wheel`,
              `No sensor belongs at ${wheel} on this car: the entry is left out.`,
            );
          } else if (seen.entries.findIndex((other) => other.wheel === wheel) < entry) {
            say(`${path}.entries.${entry}.wheel`, `Two entries for ${wheel}: the first is used.`);
          }
        }
        break;
      }
      case 'reception':
        if (seen.received > seen.expected)
          say(`${path}.received`, 'More received than expected: counted as all received.');
        break;
      case 'wheelspeed':
        if (seen.ratio < 0.8 || seen.ratio > 1.25)
          say(`${path}.ratio`, 'No wheel turns that much faster or slower than the others: measure again.');
        break;
      case 'gauge':
        if (
          seen.tire === 'cold' &&
          seen.tireC !== undefined &&
          job.climate?.nowC !== undefined &&
          seen.tireC > job.climate.nowC + 15
        ) {
          say(
            `${path}.tireC`,
            'A cold tire is not that much hotter than the air: it is taken by its temperature.',
          );
        }
        break;
      default:
        break;
    }
  }
  return found;
}

/** Notes of one round are put down as they come; only more than this, ms, is another order of events (judgement). */
const outOfOrderMs = 30 * 60_000;
