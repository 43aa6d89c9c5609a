import { percent } from '../../judgement/assessment/words';
import { listWheels } from '../../names/wheel';
import type { Advice, Replacement, WornSensor } from '.';

/** What is advised, in one sentence. */
export function adviceWords({ choice, wheels, sensors }: Advice): string {
  const worn = sensors.filter(({ atFault, wheel }) => !atFault && wheels.includes(wheel));
  const when = worn.every(({ tireOff }) => tireOff) ? 'before the tires are off again' : 'within a year';
  const where = listWheels(wheels);
  switch (choice) {
    case 'none':
      return 'Nothing speaks for replacing a sensor now.';
    case 'one':
      return `Replace ${where} alone.`;
    case 'some':
    case 'set':
      return (
        [
          `Replace ${choice === 'set' ? 'the set' : where}`,
          worn.length > 0 ? wornTogether(worn, when) : 'all of them are at fault',
        ].join(': ') + '.'
      );
  }
}

/** "Probably" only where it is likelier than not; below that it is the prices that speak for it. */
function wornTogether(worn: readonly WornSensor[], when: string): string {
  const where = listWheels(worn.map(({ wheel }) => wheel));
  const chances = worn.map(({ tireOff, endsBeforeNextTires = 0, endsWithinYear = 0 }) =>
    tireOff ? endsBeforeNextTires : endsWithinYear,
  );
  return chances.every((chance) => chance >= 0.5)
    ? `${where} will probably end ${when}`
    : `${where} may end ${when}, and to come back for it would cost more than now`;
}

/** What is known of one sensor, and what is to be expected of it. */
export function wornWords({ age, endsBeforeNextTires, endsWithinYear, tireOff }: WornSensor): string {
  if (!age || endsBeforeNextTires === undefined || endsWithinYear === undefined) return 'age not known';
  const years =
    age.from === 'car' ? `${rounded(age.years)} years, as the car` : `${rounded(age.years)} years`;
  return tireOff
    ? `${years}; ends before the next tires: ${percent(endsBeforeNextTires)}`
    : `${years}; ends within a year: ${percent(endsWithinYear)}`;
}
const rounded = (years: number): string => String(Math.round(years * 10) / 10);

/** What was chosen, as it stands on the sheet. */
export function replacementWords({ wheels, declined, note }: Replacement): string {
  const parts = [
    wheels.length > 0 ? `Sensors chosen to be replaced: ${listWheels(wheels)}.` : 'No sensor is replaced.',
    declined.length > 0 ? `Advised and declined: ${listWheels(declined)}.` : undefined,
    note,
  ];
  return parts.filter(Boolean).join(' ');
}
