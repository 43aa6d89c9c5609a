import { CircleCheck, CircleMinus, TrendingDown, TrendingUp } from 'lucide-react';
import type { Agreement } from '../../../core/sensor/agreement';
import type { Finding } from '../../../core/judgement/assessment';
import { blamesNothing, recordOf } from '../../../core/catalogue/finding';
import type { Column } from '../../../core/visit/column';
import { groupedId } from '../../../core/names/sensor-id';
import {
  figure,
  figureAsTyped,
  format,
  formatDifference,
  pressure,
  temperature,
  type Notation,
} from '../../../core/measure/units';
import { type Position } from '../../../core/names/wheel';
import styles from './Ledger.module.css';
import type { Target } from '../../../core/tire/filling';

/** What stands in the ledger at one wheel by one source. */

/** What to set it to now. */
export function TargetCell({ column: { target, gauge }, units }: { column: Column; units: Notation }) {
  return (
    <div className={styles.cell}>
      {target?.setNowKPa !== undefined && target.addKPa !== undefined && (
        <>
          <span className={styles.id}>
            {figure(pressure, target.setNowKPa, units)}{' '}
            <span className={styles.doubt}>
              {target.cappedAtKPa !== undefined
                ? 'limit'
                : target.uncertaintyKPa !== undefined && uncertainty(target.uncertaintyKPa, units)}
            </span>
          </span>
          <span className={styles.small}>{whatToDo(target, gauge?.state, units)}</span>
        </>
      )}
    </div>
  );
}

/** What the car has of the sensor there. */
export function LiveCell({ live, units }: { live: Column['live']; units: Notation }) {
  return (
    <div className={styles.cell}>
      {live &&
        (live.kPa ? (
          <span className={styles.id}>{figure(pressure, live.kPa, units)}</span>
        ) : (
          <span className={styles.small}>{(live.speedKmh ?? 0) > 0 ? 'nothing' : 'asleep'}</span>
        ))}
    </div>
  );
}

/** What to do to the air; a tire hot from driving is never bled. */
function whatToDo(
  { addKPa, advice }: Target,
  read: NonNullable<Column['gauge']>['state'] | undefined,
  units: Notation,
): string {
  if (addKPa === undefined) return '';
  // It rests on a figure of before what says otherwise.
  if (read === 'earlier') return 'gauge it again';
  if (advice === 'leave') return 'leave it';
  return advice === 'let-cool' ? 'let it cool first' : formatDifference(pressure, addKPa, units);
}

const uncertainty = (kPa: number, units: Notation): string =>
  formatDifference(pressure, kPa, units).replace(/^[+±]/, '± ').replace(` ${units.pressure}`, '');

const gaugeWords = {
  low: 'low',
  short: 'under',
  good: 'good',
  over: 'over',
  'too-high': 'too high',
  'not-comparable': 'warm',
  'let-out': 'air let out since',
  'other-unit': 'which unit?',
  'gauge-off': 'read again',
  'not-trusted': 'not trusted',
  earlier: 'earlier',
} as const;
const gaugeIcons = {
  low: TrendingDown,
  short: TrendingDown,
  good: CircleCheck,
  over: TrendingUp,
  'too-high': TrendingUp,
  'not-comparable': CircleMinus,
  'let-out': TrendingDown,
  'other-unit': CircleMinus,
  'gauge-off': CircleMinus,
  'not-trusted': CircleMinus,
  earlier: CircleMinus,
};

export function GaugeCell({
  column,
  units,
  onGauge,
}: {
  column: Column;
  units: Notation;
  onGauge: (wheel: Position) => void;
}) {
  const { gauge, wheel } = column;
  if (!gauge) {
    return (
      <button
        type="button"
        className={styles.cell}
        onClick={() => onGauge(wheel)}
        aria-label={`Gauge ${wheel}, not read`}
      >
        <span className={styles.empty}>read</span>
      </button>
    );
  }
  const Icon = gaugeIcons[gauge.state];
  const shown = figureAsTyped(pressure, gauge.kPa, units, gauge.typed);
  const difference =
    gauge.differenceKPa === undefined ? '' : formatDifference(pressure, gauge.differenceKPa, units);
  return (
    <button
      type="button"
      className={`${styles.cell} ${styles[gauge.state] ?? ''}`}
      onClick={() => onGauge(wheel)}
      aria-label={[
        `Gauge ${wheel}, ${shown} ${units.pressure}, ${difference} ${gaugeWords[gauge.state]}`,
        gauge.warning,
      ]
        .filter(Boolean)
        .join(', ')}
    >
      <span className={styles.figure}>
        {shown} <span className={styles.doubt}>{uncertainty(gauge.uncertaintyKPa, units)}</span>
      </span>
      <span className={styles.word}>
        <Icon aria-hidden="true" />
        {gauge.state === 'good'
          ? gaugeWords.good
          : [difference.replace(` ${units.pressure}`, ''), gaugeWords[gauge.state]].filter(Boolean).join(' ')}
      </span>
      {gauge.warning && <b className={styles.warning}>{gauge.warning}</b>}
      {gauge.earlierKPa.length > 0 && (
        <span className={styles.small}>
          was{' '}
          <span className={styles.was}>
            {gauge.earlierKPa.map((kPa) => figure(pressure, kPa, units)).join(', ')}
          </span>
        </span>
      )}
    </button>
  );
}

export function SensorCell({
  column,
  units,
  onScan,
}: {
  column: Column;
  units: Notation;
  onScan: (wheel: Position) => void;
}) {
  const { sensor, wheel } = column;
  if (!sensor) return <div className={`${styles.cell} ${styles.empty}`}>none</div>;
  switch (sensor.kind) {
    case 'not-woken':
      return (
        <button
          type="button"
          className={styles.cell}
          onClick={() => onScan(wheel)}
          aria-label={`Wake the sensor at ${wheel}`}
        >
          <span className={styles.empty}>wake</span>
        </button>
      );
    case 'silent':
    case 'unclear':
      return (
        <button
          type="button"
          className={`${styles.cell} ${styles.short}`}
          onClick={() => onScan(wheel)}
          aria-label={`Sensor ${wheel}, ${sensor.kind === 'silent' ? 'silent' : 'several answered'}; wake again`}
        >
          <span className={styles.word}>
            <CircleMinus aria-hidden="true" />
            {sensor.kind === 'silent' ? 'silent' : `${sensor.count} answered`}
          </span>
          {sensor.kind === 'silent' && (
            <span className={styles.small}>{sensor.tries === 1 ? '1 try' : `${sensor.tries} tries`}</span>
          )}
        </button>
      );
    case 'heard': {
      const { reply, right } = sensor;
      return (
        <button
          type="button"
          className={`${styles.cell} ${right ? '' : styles.differs}`}
          onClick={() => onScan(wheel)}
          aria-label={`Sensor ${wheel}, ID ${groupedId(reply.id)}; wake again`}
        >
          <span className={styles.id}>{groupedId(reply.id)}</span>
          <span className={styles.small}>
            {reply.kPa != null && format(pressure, reply.kPa, units)}
            {sensor.agreement && sensor.agreement.verdict !== 'agrees' && (
              <b> {agreementWords(sensor.agreement, units)}</b>
            )}
            {reply.tempC != null && ` ${format(temperature, reply.tempC, units)}`}
          </span>
          <span className={styles.small}>
            {reply.frequencyMHz != null && `${reply.frequencyMHz} MHz`} {!right && reply.family}
          </span>
          <span className={styles.small}>
            {!right ? (
              <b>wrong part</b>
            ) : reply.battery === 'low' ? (
              <b>battery low</b>
            ) : reply.battery ? (
              'battery ok'
            ) : (
              ''
            )}
          </span>
        </button>
      );
    }
  }
}

/** The sensor against the gauge, where they do not agree. */
const agreementWords = ({ verdict, differenceKPa }: Agreement, units: Notation): string =>
  `${verdict} ${formatDifference(pressure, differenceKPa, units).replace(` ${units.pressure}`, '')}`;

/** Of a car that ties IDs to positions, whether it is the same; of another, whether it is among what it holds. */
const heldWords = ({ id, agrees }: { id: string | null | undefined; agrees: boolean | undefined }): string =>
  id === undefined ? (agrees ? 'among its IDs' : 'not among its IDs') : agrees ? 'same' : 'differs';

export function HeldCell({ held }: { held: Column['held'] }) {
  if (held === undefined) return <div className={styles.cell} />;
  if (held === 'not-read') return <div className={`${styles.cell} ${styles.empty}`}>not read</div>;
  const seam = held.agrees === undefined ? undefined : held.agrees ? '=' : '≠';
  return (
    <div
      className={`${styles.cell} ${held.agrees === undefined ? '' : held.agrees ? styles.same : styles.differs}`}
    >
      {seam && (
        <span className={styles.seam} aria-hidden="true">
          {seam}
        </span>
      )}
      {held.id !== undefined && (
        <span className={styles.id}>{held.id === null ? 'none' : groupedId(held.id)}</span>
      )}
      {held.agrees !== undefined && <span className={styles.small}>{heldWords(held)}</span>}
    </div>
  );
}

/** What speaks against this wheel, in a few words; or that nothing does. */
export function ResultCell({ column, findings }: { column: Column; findings: readonly Finding[] }) {
  const against = findings.filter(
    ({ wheels, code }) =>
      wheels.includes(column.wheel) && !blamesNothing(code) && code !== 'temperature-drop',
  );
  const [first] = against;
  if (first) {
    const more = against.length > 1 ? ` +${against.length - 1}` : '';
    return (
      <div className={`${styles.cell} ${styles.differs}`}>
        {recordOf(first.code).title}
        {more}
      </div>
    );
  }
  const complete =
    column.gauge?.state === 'good' &&
    (!column.sensor ||
      (column.sensor.kind === 'heard' && typeof column.held === 'object' && column.held.agrees === true));
  return (
    <div className={`${styles.cell} ${complete ? styles.good : styles.empty}`}>
      {complete ? (
        <span className={styles.word}>
          <CircleCheck aria-hidden="true" />
          {column.sensor ? 'agrees' : 'good'}
        </span>
      ) : (
        'not checked'
      )}
    </div>
  );
}
