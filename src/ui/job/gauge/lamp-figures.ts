import type { Job } from '../../../core/job';
import { basisInWords, thresholdsFor } from '../../../core/car/lamp';
import { format, pressure, type Notation } from '../../../core/measure/units';

/**
 * What lights the lamp of this car and what it rests on: "175 kPa, out at 200 kPa: the car's own figures",
 * axle by axle where they differ; undefined while nothing is known.
 */
export function lampFigures(job: Job, units: Notation): string | undefined {
  const [front, rear] = [thresholdsFor(job, 'LF'), thresholdsFor(job, 'RR')];
  const basis = front.basis ?? rear.basis;
  if (!basis) return undefined;
  const kPa = (value: number | undefined) =>
    value === undefined ? 'not known' : format(pressure, value, units);
  const on =
    front.lowOnKPa === rear.lowOnKPa
      ? kPa(front.lowOnKPa)
      : `${kPa(front.lowOnKPa)} at the front, ${kPa(rear.lowOnKPa)} at the rear`;
  const off = front.lowOffKPa === undefined ? '' : `, out at ${kPa(front.lowOffKPa)}`;
  return `${on}${off}: ${basisInWords(basis)}`;
}
