import { allowedErrorKPa, type Calibration, type CheckPoint } from '../../core/tire/gauge';
import {
  decimal,
  format,
  formatDifference,
  inUnit,
  pressure,
  unitNamed,
  type Notation,
} from '../../core/measure/units';
import { pressureAxis, shownPressure } from '../kit/axes';
import { LazyChart } from '../kit/LazyChart';

/** The error of a gauge over pressure, going up and coming down, with what it may be off. */
export function ErrorChart({
  name,
  points,
  calibration,
  units,
}: {
  name: string;
  points: readonly CheckPoint[];
  calibration: Calibration | undefined;
  units: Notation;
}) {
  const shown = shownPressure(units);
  const { decimals } = unitNamed(pressure, units.pressure);
  const error = (kPa: number) => inUnit(pressure, kPa, units.pressure);
  const text = (value: number) => `${value > 0 ? '+' : ''}${decimal(value, decimals + 1, units)}`;
  const at = points.map(({ referenceKPa }) => referenceKPa);
  const ends = [Math.min(...at), Math.max(...at)];
  const inWay = (way: 'up' | 'down') =>
    points
      .filter((point) => point.way === way)
      .map(({ referenceKPa, readKPa }) => ({ x: shown(referenceKPa), y: error(readKPa - referenceKPa) }));
  const most = error(allowedErrorKPa(ends[0] ?? 0));
  return (
    <LazyChart
      title={`${name}: error, ${units.pressure}`}
      x={{
        ...pressureAxis(units),
        label: `reference, ${units.pressure}`,
        ticks: [...new Set(at.map(shown))].sort((a, b) => a - b),
      }}
      y={{ label: 'error', format: (value) => `${text(value)} ${units.pressure}`, tick: text }}
      series={[
        { name: 'going up', look: 'points', tone: 'ink', points: inWay('up') },
        { name: 'coming down', look: 'rings', tone: 'focus', points: inWay('down') },
        ...(calibration
          ? [
              {
                name: 'taken out of readings',
                look: 'line' as const,
                tone: 'clay' as const,
                points: ends.map((kPa) => ({ x: shown(kPa), y: error(calibration.errorAt(kPa)) })),
              },
            ]
          : []),
      ]}
      band={{ from: -most, to: most, label: 'within tolerance' }}
      table={{
        head: ['Way', 'reference', 'read', 'error'],
        rows: points.map(({ way, referenceKPa, readKPa }) => [
          way,
          format(pressure, referenceKPa, units),
          format(pressure, readKPa, units),
          formatDifference(pressure, readKPa - referenceKPa, units, 1),
        ]),
      }}
    />
  );
}
