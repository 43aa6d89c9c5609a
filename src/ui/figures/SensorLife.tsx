import { aliveAfter } from '../../core/sensor/life';
import { agesCompared, endsForOwnCurve, type SensorLives } from '../../core/sensor/life/lifetimes';
import { aliveAt } from '../../core/measure/survival';
import { DataTable } from '../kit/DataTable';
import { LazyChart } from '../kit/LazyChart';
import styles from './Figures.module.css';

/** Ages the curves are drawn at, years. */
const ages = Array.from({ length: 33 }, (_, n) => n / 2);
const percent = (share: number): string => `${Math.round(share * 100)} %`;

/** How long the shop's own sensors lasted, beside what common practice says. */
export function SensorLife({ lives: { sensors, ended, steps, fit, groups } }: { lives: SensorLives }) {
  const isOwn = fit !== null && fit.ended >= endsForOwnCurve.value;
  const drawn = steps.flatMap((step, n) => [
    { x: step.at, y: n === 0 ? 1 : (steps[n - 1]?.survival ?? 1) },
    // A hair later: a chart has one height at one age.
    { x: step.at + 1e-6, y: step.survival },
  ]);
  return (
    <section className={styles.figures} aria-labelledby="sensor-life">
      <h2 id="sensor-life">How long sensors last here</h2>
      <p>
        {sensors === 0
          ? 'No sensor of a known age was seen twice yet. Until enough were, the curve of common practice counts.'
          : `${sensors} sensors of a known age were seen more than once; ${ended} of them ended.`}{' '}
        {fit &&
          isOwn &&
          `Two thirds are gone after ${fit.scale.toFixed(1)} years (95 %: ${fit.scaleInterval.map((years) => years.toFixed(1)).join(' to ')}). What is advised goes by that.`}
        {sensors > 0 &&
          !isOwn &&
          `From ${endsForOwnCurve.value} that ended on, what is advised goes by the shop’s own; until then by common practice.`}
      </p>
      <LazyChart
        title="Sensors still alive, by age"
        x={{
          label: 'age, years',
          format: (years) => `${years.toFixed(1)} years`,
          tick: (years) => years.toFixed(0),
        }}
        y={{ label: 'alive', format: percent, tick: percent }}
        series={[
          ...(steps.length > 0
            ? [
                { name: 'this shop’s', look: 'line' as const, tone: 'ink' as const, points: drawn },
                {
                  name: '95 %, least',
                  look: 'dots' as const,
                  tone: 'ink' as const,
                  points: steps.map(({ at, low }) => ({ x: at, y: low })),
                },
                {
                  name: '95 %, most',
                  look: 'dots' as const,
                  tone: 'ink' as const,
                  points: steps.map(({ at, high }) => ({ x: at, y: high })),
                },
              ]
            : []),
          ...(fit && isOwn
            ? [
                {
                  name: 'curve through it',
                  look: 'line' as const,
                  tone: 'clay' as const,
                  points: ages.map((x) => ({ x, y: aliveAt(fit, x) })),
                },
              ]
            : []),
          {
            name: 'common practice',
            look: 'dashes',
            tone: 'focus',
            points: ages.map((x) => ({ x, y: aliveAfter(x) })),
          },
        ]}
        table={{
          head: ['Age, years', 'watched', 'ended', 'alive', '95 %'],
          rows: steps.map(({ at, atRisk, ended: gone, survival, low, high }) => [
            at.toFixed(1),
            atRisk,
            gone,
            percent(survival),
            `${percent(low)} to ${percent(high)}`,
          ]),
        }}
      />
      {groups.length > 0 && (
        <DataTable
          table={{
            name: 'lives',
            title: 'Alive by part and carrier, with the 95 % band',
            columns: [
              { label: 'of' },
              { label: 'seen' },
              { label: 'ended' },
              ...agesCompared.map((age) => ({ label: `at ${age} years` })),
            ],
            rows: groups.map((group) => [
              group.name,
              group.sensors,
              group.ended,
              ...group.alive.map((at) =>
                at ? `${percent(at.survival)} (${percent(at.low)} to ${percent(at.high)})` : 'not seen yet',
              ),
            ]),
          }}
          empty=""
        />
      )}
    </section>
  );
}
