import type { Reliability } from '../../core/measure/reliability';
import { LazyChart } from '../kit/LazyChart';

const percent = (share: number) => `${(100 * share).toFixed(1)} %`;
const axis = {
  format: percent,
  tick: (value: number) => `${Math.round(100 * value)} %`,
  ticks: [0, 0.25, 0.5, 0.75, 1],
};

/** How often what was said came true, by how sure it was, beside the line on which both agree. */
export function ReliabilityChart({ of, bars }: { of: string; bars: readonly Reliability[] }) {
  const claimed = bars.filter(({ claims }) => claims > 0);
  return (
    <LazyChart
      title="How often a finding is true, by how sure it was"
      x={{ label: 'said', ...axis }}
      y={{ label: 'true', ...axis }}
      series={[
        {
          name: 'as sure as said',
          look: 'dashes',
          tone: 'ink',
          points: [
            { x: 0, y: 0 },
            { x: 1, y: 1 },
          ],
        },
        {
          name: of,
          look: 'points',
          tone: 'clay',
          points: claimed.map(({ meanChance, shareTrue }) => ({ x: meanChance, y: shareTrue })),
        },
      ]}
      table={{
        head: ['Said', 'true', 'claims'],
        rows: claimed.map(({ meanChance, shareTrue, claims }) => [
          percent(meanChance),
          percent(shareTrue),
          claims,
        ]),
      }}
    />
  );
}
