import type { WheelForecast } from '../../core/car/lamp';
import { atTemperature } from '../../core/measure/pressure';
import { figure, format, pressure, temperature, unitNamed, type Notation } from '../../core/measure/units';
import type { Position } from '../../core/names/wheel';
import type { Series } from '../kit/Chart';
import { pressureAxis, shownPressure, shownTemperature, temperatureAxis } from '../kit/axes';
import { LazyChart } from '../kit/LazyChart';

const looks: Record<Position, Series['look']> = {
  LF: 'line',
  RF: 'dashes',
  RR: 'line',
  LR: 'dots',
  SP: 'dashes',
};
const tones: Record<Position, Series['tone']> = {
  LF: 'ink',
  RF: 'ink',
  RR: 'focus',
  LR: 'focus',
  SP: 'ochre',
};
/** A tick of the temperature axis, in the unit that is shown. */
const tick = 10;
const steps = 24;

/** Pressure over temperature, a line for each wheel, with the lamp's figures and where placard should stand. */
export function PressureChart({
  wheels,
  placard,
  coldestC,
  name,
  units,
}: {
  wheels: readonly WheelForecast[];
  /** Where each wheel should stand at which temperature; the same point is marked once. */
  placard: readonly { wheel: Position; kPa: number; celsius: number }[];
  coldestC: number | undefined;
  /** What a single line is called, where it is no wheel of a car. */
  name?: string;
  units: Notation;
}) {
  const [first] = wheels;
  if (!first) return null;
  const shown = (celsius: number) => figure(temperature, celsius, units);
  const celsius = [
    ...wheels.flatMap(({ air, lightsAtC }) => [air.celsius, Math.max(lightsAtC, -45)]),
    ...placard.map((point) => point.celsius),
    ...(coldestC === undefined ? [] : [coldestC]),
  ];
  const [x, y] = [shownTemperature(units), shownPressure(units)];
  // From tick to tick: the lines fill the picture.
  const least = Math.floor(x(Math.min(...celsius)) / tick) * tick;
  const most = Math.ceil(x(Math.max(...celsius)) / tick) * tick;
  const ticks = Array.from({ length: Math.round((most - least) / tick) + 1 }, (_, n) => least + n * tick);
  const toCelsius = unitNamed(temperature, units.temperature).toBase;
  const at = Array.from({ length: steps + 1 }, (_, n) => toCelsius(least + ((most - least) * n) / steps));
  const { lowOnKPa, lowOffKPa } = first.thresholds;
  const same = wheels.every(({ thresholds }) => thresholds.lowOnKPa === lowOnKPa);
  const lamps = same
    ? [{ lowOnKPa, lowOffKPa, of: '' }]
    : wheels.map(({ wheel, thresholds }) => ({ ...thresholds, of: ` ${wheel}` }));
  const kPa = (value: number) => format(pressure, value, units);
  const points = [...new Map(placard.map((point) => [`${point.kPa} ${point.celsius}`, point])).values()];
  return (
    <LazyChart
      title={`Pressure over temperature, ${units.pressure}`}
      x={{ ...temperatureAxis(units), ticks }}
      y={pressureAxis(units)}
      series={wheels.map(({ wheel, air }) => ({
        name: name ?? wheel,
        look: looks[wheel],
        tone: tones[wheel] ?? 'ink',
        points: at.map((c) => ({ x: x(c), y: y(atTemperature(air, c)) })),
      }))}
      levels={lamps.flatMap(({ lowOnKPa: on, lowOffKPa: off, of }) => [
        ...(on === undefined ? [] : [{ y: y(on), label: `lamp on${of}, ${kPa(on)}`, tone: 'clay' as const }]),
        ...(off === undefined
          ? []
          : [{ y: y(off), label: `lamp off${of}, ${kPa(off)}`, tone: 'agave' as const }]),
      ])}
      marks={points.map((point) => ({
        x: x(point.celsius),
        y: y(point.kPa),
        label: `placard ${kPa(point.kPa)}`,
      }))}
      moments={coldestC === undefined ? [] : [{ x: x(coldestC), label: `coldest ${shown(coldestC)}` }]}
      table={{
        head: ['Tire at', ...wheels.map(({ wheel }) => name ?? wheel)],
        rows: at
          .filter((_, n) => n % 2 === 0)
          .map((c) => [
            format(temperature, c, units),
            ...wheels.map(({ air }) => figure(pressure, atTemperature(air, c), units)),
          ]),
      }}
    />
  );
}
