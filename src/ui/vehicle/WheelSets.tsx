import { useState } from 'react';
import { groupedId } from '../../core/names/sensor-id';
import { aliveAfter } from '../../core/sensor/life';
import type { LabelTarget } from '../../core/names/label';
import { inOrderOfWalk, type SetWheel, type WheelSet } from '../../core/records/wheel-set';
import { madeIn, tireAgeYears, tireState } from '../../core/records/wheel-set/tire';
import { placeWords, seasonWords, tireStateWords } from '../../core/records/wheel-set/words';
import { Button } from '../kit/Button';
import buttonStyles from '../kit/Button.module.css';
import { EditSet } from './EditSet';
import { LabelDialog } from './LabelDialog';
import { Rotation } from './Rotation';
import { SwapDialog, type OpenJob } from './SwapDialog';
import styles from './Vehicle.module.css';
import { yearMs } from '../../core/measure/calendar/spans';

interface WheelSetsProps {
  vehicleId: string;
  initial: WheelSet[];
  /** The job that is open for this car: a set goes onto it there. */
  open: OpenJob | undefined;
  today: string;
  hasTool: boolean;
}

type Opened =
  | { dialog: 'edit'; set: WheelSet | undefined }
  | { dialog: 'swap'; set: WheelSet }
  | { dialog: 'labels'; wanted: LabelTarget[] };

/** The wheel sets of a vehicle: on the car, in the store, at the customer's; wheel by wheel. */
export function WheelSets({ vehicleId, initial, open, today, hasTool }: WheelSetsProps) {
  const [sets, setSets] = useState(initial);
  const [opened, setOpened] = useState<Opened>();
  const close = () => setOpened(undefined);
  return (
    <div className={styles.sets}>
      {sets.map((set) => (
        <section
          key={set.id}
          id={`set-${set.id}`}
          className={styles.set}
          aria-label={`Wheel set ${set.label}`}
        >
          <div className={styles.setHead}>
            <h3>{set.label}</h3>
            <p>
              {seasonWords[set.season]}, {placeWords[set.place]}
              {set.rack && (
                <>
                  {', '}
                  <b className="figures">{set.rack}</b>
                </>
              )}
            </p>
            <div className={styles.actions}>
              {open && set.place !== 'car' && set.place !== 'gone' && (
                <Button weight="main" onClick={() => setOpened({ dialog: 'swap', set })}>
                  Put on the car
                </Button>
              )}
              {!open && set.place !== 'car' && set.place !== 'gone' && (
                <a className={buttonStyles.button} href={`/book-in?vehicle=${vehicleId}&set=${set.id}`}>
                  Make a job ready
                </a>
              )}
              <Button onClick={() => setOpened({ dialog: 'edit', set })}>Change</Button>
              <Button onClick={() => setOpened({ dialog: 'labels', wanted: labelsOf(vehicleId, set) })}>
                Labels
              </Button>
            </div>
          </div>
          <Wheels set={set} today={today} />
          {set.place === 'car' && <Rotation set={set} />}
        </section>
      ))}
      {sets.length === 0 && (
        <p>No set is on file. What the tool hears goes on file at hand-over; another set is added here.</p>
      )}
      <div className={styles.actions}>
        <Button onClick={() => setOpened({ dialog: 'edit', set: undefined })}>Add a set</Button>
        <Button onClick={() => setOpened({ dialog: 'labels', wanted: [{ of: 'key', vehicleId }] })}>
          Label for the key
        </Button>
        {!open && sets.some(({ place }) => place !== 'car') && (
          <a className={buttonStyles.button} href="/book-in">
            Book the car in to put another set on
          </a>
        )}
      </div>
      {opened?.dialog === 'edit' && (
        <EditSet
          {...{ vehicleId, set: opened.set, hasTool }}
          onSaved={(fresh) => {
            setSets(fresh);
            close();
          }}
          onClose={close}
        />
      )}
      {opened?.dialog === 'swap' && open && (
        <SwapDialog
          set={opened.set}
          onCar={sets.find(({ place }) => place === 'car')}
          job={open}
          onClose={close}
        />
      )}
      {opened?.dialog === 'labels' && <LabelDialog wanted={opened.wanted} onClose={close} />}
    </div>
  );
}

/** One for the set, one for each of its wheels. */
const labelsOf = (vehicleId: string, { id: wheelSetId, wheels }: WheelSet): LabelTarget[] => [
  { of: 'set', vehicleId, wheelSetId },
  ...inOrderOfWalk(wheels).flatMap(({ wheel }): LabelTarget[] =>
    wheel ? [{ of: 'wheel', vehicleId, wheelSetId, wheel }] : [],
  ),
];

function Wheels({ set, today }: { set: WheelSet; today: string }) {
  return (
    <div className={styles.scroll}>
      <table className={styles.table}>
        <thead>
          <tr>
            {['Wheel', 'Sensor', 'Sensor age', 'Tread', 'Tire made', 'Size', 'State'].map((word) => (
              <th key={word} scope="col">
                {word}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {inOrderOfWalk(set.wheels).map((one, at) => (
            <Wheel key={one.wheel ?? at} {...{ one, set, today }} />
          ))}
          {set.wheels.length === 0 && (
            <tr>
              <td colSpan={7}>No wheel is on file.</td>
            </tr>
          )}
        </tbody>
      </table>
    </div>
  );
}

function Wheel({ one, set, today }: { one: SetWheel; set: WheelSet; today: string }) {
  const now = new Date(today);
  const made = one.dot === null ? undefined : madeIn(one.dot);
  const state = tireState(one, set.season, now);
  const isBad = state === 'spent' || state === 'old' || state === 'worn';
  return (
    <tr>
      <th scope="row">{one.wheel ?? '–'}</th>
      <td className="figures">
        {one.sensorId ? (
          <a href={`/sensors/${encodeURIComponent(one.sensorId)}`}>{groupedId(one.sensorId)}</a>
        ) : (
          'none known'
        )}
      </td>
      <td>{ageWords(one.newOn, now)}</td>
      <td className="figures">{one.treadMm === null ? '–' : `${one.treadMm.toFixed(1)} mm`}</td>
      <td>
        {made?.ok
          ? `week ${made.value.week} of ${made.value.year}, ${Math.max(0, tireAgeYears(made.value, now)).toFixed(1)} years`
          : '–'}
      </td>
      <td>{one.size ?? '–'}</td>
      <td className={isBad ? styles.bad : undefined}>{tireStateWords[state]}</td>
    </tr>
  );
}

/** A sensor's age, and what is to be expected of its battery. */
function ageWords(newOn: string | null, now: Date): string {
  if (newOn === null) return 'not known';
  const years = Math.max(0, (now.getTime() - Date.parse(newOn)) / yearMs);
  const lasts = aliveAfter(years + 1) / aliveAfter(years);
  return `${years.toFixed(1)} years; another year: ${Math.round(lasts * 100)} %`;
}
