import { lazy, Suspense, useSyncExternalStore } from 'react';
import type { ChartProps } from './Chart';
import styles from './Chart.module.css';

/** The charting library is large: it is fetched when the first chart is looked at. */
const Chart = lazy(() => import('./Chart'));

const drawing = <p className={styles.plot}>Drawing…</p>;
const nothing = () => () => undefined;

/** Drawn in the browser only: on the server nothing is measured, and nothing could be drawn. */
export function LazyChart(props: ChartProps) {
  const inBrowser = useSyncExternalStore(
    nothing,
    () => true,
    () => false,
  );
  return inBrowser ? (
    <Suspense fallback={drawing}>
      <Chart {...props} />
    </Suspense>
  ) : (
    drawing
  );
}
