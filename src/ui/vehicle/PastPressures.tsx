import type { PastReading } from '../../core/records/vehicle';
import { comparedAtC } from '../../core/records/vehicle';
import { format, pressure, temperature, type Notation } from '../../core/measure/units';
import { inWalkingOrder, positionName, type Position } from '../../core/names/wheel';
import { day, month } from '../../core/measure/calendar';
import { shownPressure, pressureAxis } from '../kit/axes';
import type { Series } from '../kit/Chart';
import { LazyChart } from '../kit/LazyChart';

const looks: Record<Position, Pick<Series, 'look' | 'tone'>> = {
  LF: { look: 'line', tone: 'ink' },
  RF: { look: 'dashes', tone: 'ink' },
  RR: { look: 'dashes', tone: 'focus' },
  LR: { look: 'line', tone: 'focus' },
  SP: { look: 'dots', tone: 'ochre' },
};

/** Every pressure that was ever gauged, at one temperature, over the years. */
export function PastPressures({ readings, units }: { readings: PastReading[]; units: Notation }) {
  const shown = shownPressure(units);
  const compared = readings.flatMap(({ kPa, ...reading }) =>
    kPa === undefined ? [] : [{ ...reading, kPa }],
  );
  const wheels = inWalkingOrder(new Set(compared.map(({ wheel }) => wheel)));
  const at = format(temperature, comparedAtC, units);
  return (
    <LazyChart
      title={`Pressures of all visits, as they would be at ${at}`}
      x={{ label: 'day', format: (ms) => day(ms, units), tick: (ms) => month(ms, units) }}
      y={pressureAxis(units)}
      series={wheels.map((wheel) => ({
        name: positionName[wheel],
        ...looks[wheel],
        points: compared
          .filter((reading) => reading.wheel === wheel)
          .map((reading) => ({ x: Date.parse(reading.at), y: shown(reading.kPa) })),
      }))}
      table={{
        head: ['Day', 'job', 'wheel', 'read', `at ${at}`, ''],
        rows: readings.map(({ at: read, number, wheel, readKPa, kPa, trusted }) => [
          day(read, units),
          number,
          wheel,
          format(pressure, readKPa, units),
          kPa === undefined ? 'warm, by how much not known' : format(pressure, kPa, units),
          trusted ? '' : 'gauge not trusted',
        ]),
      }}
    />
  );
}
