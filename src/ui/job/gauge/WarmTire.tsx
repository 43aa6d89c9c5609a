import { estimateTireTemperature } from '../../../core/tire/temperature';
import { format, formatDifference, temperature, type Notation } from '../../../core/measure/units';
import { Choice, Field } from '../../kit/Field';
import styles from '../../kit/Forms.module.css';
import { enterOutdoorFirst } from './words';
import { drives, type Drive } from '../../../core/names/kinds';

/** How the temperature of a warm tire is known. */
export interface Warmth {
  how: 'measured' | 'estimated' | 'unknown';
  typed: string;
  drive: Drive;
  driven: string;
  stood: string;
}

export const noWarmth: Warmth = { how: 'measured', typed: '', drive: 'town', driven: '', stood: '' };

const driveWords: Record<Drive, string> = {
  town: 'in town',
  road: 'on the road',
  motorway: 'on the motorway',
};

/** A warm tire's temperature: measured at best; else from how and how long it was driven; else left open. */
export function WarmTire({
  warmth,
  outdoorC,
  units,
  error,
  onWarmth,
}: {
  warmth: Warmth;
  outdoorC: number | undefined;
  units: Notation;
  error: string | undefined;
  onWarmth: (warmth: Warmth) => void;
}) {
  const set = (part: Partial<Warmth>) => onWarmth({ ...warmth, ...part });
  const [driven, stood] = [Number(warmth.driven || Number.NaN), Number(warmth.stood || 0)];
  const estimate =
    outdoorC !== undefined && driven >= 0 && stood >= 0
      ? estimateTireTemperature({ outdoorC, drive: warmth.drive, minutesDriven: driven, minutesStood: stood })
      : undefined;
  return (
    <div className={styles.form}>
      <Choice
        label="Its temperature is"
        options={[
          { value: 'measured', label: 'measured' },
          { value: 'estimated', label: 'estimated' },
          { value: 'unknown', label: 'not known' },
        ]}
        value={warmth.how}
        onValue={(how) => set({ how })}
      />
      {warmth.how === 'measured' && (
        <Field
          label={`Tire temperature, ${units.temperature}`}
          hint="On the tread, or as the sensor says."
          value={warmth.typed}
          onValue={(typed) => set({ typed })}
          error={error}
        />
      )}
      {warmth.how === 'estimated' && (
        <>
          <Choice
            label="It was driven"
            options={drives.map((value) => ({ value, label: driveWords[value] }))}
            value={warmth.drive}
            onValue={(drive) => set({ drive })}
          />
          <div className={styles.row}>
            <Field
              label="for, min"
              inputMode="numeric"
              value={warmth.driven}
              onValue={(value) => set({ driven: value })}
              error={error}
            />
            <Field
              label="and has stood, min"
              inputMode="numeric"
              value={warmth.stood}
              onValue={(value) => set({ stood: value })}
            />
          </div>
          <p role="status">
            {estimate
              ? `About ${format(temperature, estimate.celsius, units)}, ${formatDifference(temperature, estimate.uncertaintyK, units).replace('+', '± ')}. Measured is better.`
              : outdoorC === undefined
                ? enterOutdoorFirst
                : ''}
          </p>
        </>
      )}
      {warmth.how === 'unknown' && (
        <p>Without it nothing can be said but that the tire is lower once it is cold.</p>
      )}
    </div>
  );
}
