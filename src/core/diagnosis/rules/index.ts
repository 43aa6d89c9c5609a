import { placardKPa, placardToleranceKPa } from '../../placard';
import type { Rule, Scene, Statement } from '../scene';
import { crossRead, duplicates, otherSet, registration } from './ids';
import { baseline, rollingRadius, wheelSpeed } from './indirect';
import { swappedPositions } from './positions';
import { accuracy, battery, heard, intermittence, silence, wrongType } from './sensors';
import { asleep, disabled, receiver, supply, waitingForDrive } from './system';
import { inflation, latchedLamp, leak, temperatureDrop } from './tires';

// prettier-ignore
const rules: readonly Rule[] = [
  inflation, temperatureDrop, leak, latchedLamp,
  silence, battery, wrongType, accuracy, intermittence,
  registration, otherSet, crossRead, duplicates, swappedPositions,
  receiver, asleep, disabled, waitingForDrive, supply,
  baseline, wheelSpeed, rollingRadius,
];

/** Everything the rules can tell; "no fault" only where all was looked at and nothing was found. */
export function statementsOn(scene: Scene): Statement[] {
  const found = rules.flatMap((rule) => rule(scene));
  return found.length === 0 ? allInOrder(scene) : found;
}

function allInOrder({ job, ledger, wheels, monitored, ...scene }: Scene): Statement[] {
  const { lamp, registry } = ledger;
  if (lamp?.seen.state !== 'off' || lamp.seen.bulbCheck === false || ledger.codes.length > 0) return [];
  const gauges = wheels.flatMap((wheel) => {
    const reading = ledger.gauge[wheel];
    const cold = placardKPa(job, wheel);
    return reading && cold !== undefined && reading.seen.kPa >= cold - placardToleranceKPa ? [reading] : [];
  });
  const sensors = heard({ job, ledger, wheels: monitored, monitored, ...scene });
  const looked =
    gauges.length === wheels.length &&
    sensors.length === monitored.length &&
    (monitored.length === 0 || registry);
  if (!looked) return [];
  const because = [lamp, ...gauges, ...sensors, ...(registry ? [registry] : [])].map(({ index }) => index);
  return [{ code: 'no-fault', certainty: 'corroborated', because }];
}
