import type { Advice } from '../../../core/visit/replacement';
import { costWords, worthFrom, type Prices } from '../../../core/visit/replacement/prices';
import { figures } from '../../../core/visit/replacement/figures';
import { aliveAfter, type LifeCurve } from '../../../core/sensor/life';
import { LazyChart } from '../../kit/LazyChart';

/** Ages the curve is drawn at, years. */
const oldestDrawn = 15;
const ages = Array.from({ length: 2 * oldestDrawn + 1 }, (_, n) => n / 2);
const percent = (share: number) => `${Math.round(100 * share)} %`;
const years = (age: number) => `${age.toFixed(1)} years`;

/** Why it is worth replacing a sensor now, or not: the chance that it ends in time, by its age, against what it costs. */
export function WorthIt({
  advice: { sensors },
  curve,
  prices,
}: {
  advice: Advice;
  curve: LifeCurve | undefined;
  prices: Prices | undefined;
}) {
  const known = sensors.filter(({ age, atFault }) => age !== undefined && !atFault);
  const [first] = known;
  if (!first) return null;
  // Those whose tire comes off are looked at until the next tires, the others for a year.
  const tireOff = known.every((sensor) => sensor.tireOff);
  const horizon = tireOff ? figures.yearsBetweenTires.value : 1;
  const ends = (age: number) => 1 - aliveAfter(age + horizon, curve) / aliveAfter(age, curve);
  const least = worthFrom(prices, tireOff);
  const when = tireOff ? 'before the next tires' : 'within a year';
  return (
    <>
      {prices && first.costs && (
        <p>
          {costWords(first.costs, prices.currency)}: worth it from a chance of {percent(least)} on.
        </p>
      )}
      <LazyChart
        title={`Chance that a sensor ends ${when}, by its age`}
        x={{ label: 'age, years', format: years, tick: (age) => age.toFixed(0), ticks: [0, 3, 6, 9, 12, 15] }}
        y={{ label: 'ends', format: percent, tick: percent, ticks: [0, 0.25, 0.5, 0.75, 1] }}
        series={[
          {
            name: `ends ${when}`,
            look: 'line',
            tone: 'ink',
            points: ages.map((x) => ({ x, y: ends(x) })),
          },
        ]}
        levels={[{ y: least, label: `worth it from ${percent(least)}`, tone: 'agave' }]}
        marks={marksOf(known).map(({ age, wheels }) => ({
          x: Math.min(oldestDrawn, age),
          y: ends(age),
          label: wheels.join(', '),
        }))}
        table={{
          head: ['Age, years', `ends ${when}`],
          rows: ages.filter((age) => Number.isInteger(age)).map((age) => [age, percent(ends(age))]),
        }}
      />
    </>
  );
}

/** Sensors of one age are one mark. */
function marksOf(sensors: Advice['sensors']): { age: number; wheels: string[] }[] {
  const marks: { age: number; wheels: string[] }[] = [];
  for (const { age, wheel } of sensors) {
    if (!age) continue;
    const same = marks.find((mark) => Math.abs(mark.age - age.years) < 0.1);
    if (same) same.wheels.push(wheel);
    else marks.push({ age: age.years, wheels: [wheel] });
  }
  return marks;
}
