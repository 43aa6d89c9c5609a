import { lazy } from 'react';
import type { ChartProps } from './Chart';
import styles from './Chart.module.css';
import { Later } from './Later';

/** The charting library is large: it is fetched when the first chart is looked at. */
const Chart = lazy(() => import('./Chart'));

/** On the server nothing is measured, and nothing could be drawn. */
export const LazyChart = (props: ChartProps) => (
  <Later fallback={<p className={styles.plot}>Drawing…</p>}>
    <Chart {...props} />
  </Later>
);
