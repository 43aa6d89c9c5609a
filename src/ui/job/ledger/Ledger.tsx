import type { ReactNode } from 'react';
import type { Finding } from '../../../core/judgement/assessment';
import type { Column } from '../../../core/visit/column';
import { signWords } from '../../../core/job/words';
import { figure, format, pressure, type Notation } from '../../../core/measure/units';
import { positionName, type Position } from '../../../core/names/wheel';
import type { Source } from '../../../core/visit/observation';
import type { Speaks } from './evidence-cells';
import { GaugeCell, HeldCell, LiveCell, ResultCell, SensorCell, TargetCell } from './cells';
import styles from './Ledger.module.css';

interface LedgerProps {
  columns: Column[];
  /** Codes that name no wheel; undefined where they were not read. */
  carCodes: string[] | undefined;
  findings: readonly Finding[];
  /** Which cells speak for the finding that is looked at, and which against it. */
  speaks: (source: Source, wheel: Position) => Speaks | undefined;
  units: Notation;
  chosen: Position | undefined;
  onGauge: (wheel: Position) => void;
  onPlacard: () => void;
  onScan: (wheel: Position) => void;
}

/** A column per wheel in walking order, a row per source, what it comes to under the line. */
export function Ledger({
  columns,
  carCodes,
  findings,
  speaks,
  units,
  chosen,
  onGauge,
  onPlacard,
  onScan,
}: LedgerProps) {
  const row = (
    name: Source | 'placard' | 'target' | 'result' | 'looks' | 'codes',
    label: string,
    cell: (column: Column) => ReactNode,
  ) => (
    <tr className={styles[name]}>
      <th scope="row">{label}</th>
      {columns.map((column) => {
        const says =
          name === 'placard' || name === 'target' || name === 'result' || name === 'looks' || name === 'codes'
            ? undefined
            : speaks(name, column.wheel);
        const classes = [column.wheel === chosen && styles.chosen, says && styles[says]].filter(Boolean);
        return (
          <td key={column.wheel} className={classes.join(' ') || undefined}>
            {cell(column)}
            {says && <span className={styles.says}>{says}</span>}
          </td>
        );
      })}
    </tr>
  );
  const anySensor = columns.some(({ sensor }) => sensor);
  return (
    <table className={`${styles.ledger} ${columns.length > 4 ? styles.five : ''}`}>
      <caption className="unseen">Each wheel by each source, in walking order</caption>
      <thead>
        <tr>
          <td />
          {columns.map(({ wheel }) => (
            <th key={wheel} scope="col">
              <span className={styles.wheel}>
                <b>{wheel}</b>
                <span>{positionName[wheel]}</span>
              </span>
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {row('placard', `Placard, ${units.pressure}`, (column) => (
          <button
            type="button"
            className={styles.cell}
            onClick={onPlacard}
            aria-label={`Placard ${column.wheel}, ${column.placardKPa === undefined ? 'not entered' : format(pressure, column.placardKPa, units)}`}
          >
            {column.placardKPa === undefined ? (
              <span className={styles.empty}>enter</span>
            ) : (
              <span className={styles.figure}>{figure(pressure, column.placardKPa, units)}</span>
            )}
          </button>
        ))}
        {row('gauge', `Gauge, ${units.pressure}`, (column) => (
          <GaugeCell column={column} units={units} onGauge={onGauge} />
        ))}
        {row('target', `Set now, ${units.pressure}`, (column) => (
          <TargetCell column={column} units={units} />
        ))}
        {anySensor &&
          row('sensor', 'Sensor, by the tool', (column) => (
            <SensorCell column={column} units={units} onScan={onScan} />
          ))}
        {anySensor && row('held', 'Car holds', ({ held }) => <HeldCell held={held} />)}
        {anySensor &&
          row('live', `Car shows, ${units.pressure}`, ({ live }) => <LiveCell live={live} units={units} />)}
        {columns.some(({ display }) => display) &&
          row('display', `Display, ${units.pressure}`, ({ display }) => (
            <div className={styles.cell}>
              {display && (
                <span className={display.kPa === null ? styles.small : styles.id}>
                  {display.kPa === null ? 'nothing' : figure(pressure, display.kPa, units)}
                </span>
              )}
            </div>
          ))}
        {columns.some(({ looks }) => looks.length > 0) &&
          row('looks', 'Look', ({ looks }) => (
            <div className={styles.cell}>{looks.map((sign) => signWords[sign]).join(', ')}</div>
          ))}
        {columns.some(({ codes }) => codes.length > 0) &&
          row('codes', 'Codes, by wheel', ({ codes }) => (
            <div className={`${styles.cell} ${codes.length > 0 ? styles.differs : ''}`}>
              {codes.join(', ')}
            </div>
          ))}
        {carCodes && (
          <tr className={styles.codes}>
            <th scope="row">Codes, car</th>
            <td colSpan={columns.length}>
              <div className={`${styles.cell} ${carCodes.length > 0 ? styles.differs : ''}`}>
                {carCodes.length > 0
                  ? carCodes.join(', ')
                  : columns.some(({ codes }) => codes.length > 0)
                    ? 'none but these'
                    : 'read: none stored'}
              </div>
            </td>
          </tr>
        )}
        {row('result', 'Result', (column) => (
          <ResultCell column={column} findings={findings} />
        ))}
      </tbody>
    </table>
  );
}
