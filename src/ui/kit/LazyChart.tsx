import type { ChartProps } from './Chart';
import styles from './Chart.module.css';
import { Later, part } from './Later';

/** The charting library is large: it is fetched when the first chart is looked at. */
const Chart = part(() => import('./Chart').then((found) => found.default));

/** On the server nothing is measured, and nothing could be drawn. */
export const LazyChart = (props: ChartProps) => (
  <Later fallback={<p className={styles.plot}>Drawing…</p>}>
    <Chart {...props} />
  </Later>
);
