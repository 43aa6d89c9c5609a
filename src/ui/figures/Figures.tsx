import { useEffect, useRef, useState } from 'react';
import type { PopulationNews, PopulationRequest, Report, WayOfWorking } from '../../core/simulate';
import { Button } from '../kit/Button';
import { Choice } from '../kit/Field';
import styles from './Figures.module.css';
import { ReliabilityChart } from './ReliabilityChart';

const sizes = ['500', '2000', '20000'] as const;
type Size = (typeof sizes)[number];

const ways: { name: WayOfWorking; label: string }[] = [
  { name: 'engine', label: 'Test by test' },
  { name: 'checklist', label: 'Whole round first' },
  { name: 'replace', label: 'A part for the lamp' },
];

/** How well the engine does on cars whose truth is known, because they are made up. */
export function Figures() {
  const [size, setSize] = useState<Size>('500');
  const [run, setRun] = useState<{ done: number; of: number; report?: Report; ended?: 'done' | 'stopped' }>();
  const worker = useRef<Worker>(undefined);
  useEffect(() => () => worker.current?.terminate(), []);

  const start = () => {
    worker.current?.terminate();
    const made = new Worker(new URL('../../workers/population.ts', import.meta.url), { type: 'module' });
    const of = Number(size);
    worker.current = made;
    setRun({ done: 0, of });
    made.addEventListener('message', ({ data }: MessageEvent<PopulationNews>) => {
      if (data.kind === 'done') setRun({ done: of, of, report: data.report, ended: 'done' });
      else setRun({ done: data.done, of, report: data.report });
    });
    made.postMessage({ cars: of, seed: Date.now() % 100_000 } satisfies PopulationRequest);
  };
  const stop = () => {
    worker.current?.terminate();
    setRun((now) => now && { ...now, ended: 'stopped' });
  };
  const running = run !== undefined && run.ended === undefined;
  return (
    <section className={styles.figures} aria-labelledby="made-up">
      <h2 id="made-up">How well the engine does on simulated cars</h2>
      <p>
        Cars are made up with faults that are known, by figures that are not the engine’s own, and judged test
        by test until it would act. The same cars go through the whole round done in full, and through a part
        sold for the lamp.
      </p>
      <form
        className={styles.start}
        onSubmit={(event) => {
          event.preventDefault();
          start();
        }}
      >
        <Choice
          label="Cars"
          options={sizes.map((value) => ({ value, label: Number(value).toLocaleString('en') }))}
          value={size}
          onValue={setSize}
        />
        {/* Two buttons, not one that changes: a stop must not become the press of a start. */}
        {running ? (
          <Button key="stop" onClick={stop}>
            Stop
          </Button>
        ) : (
          <Button key="run" weight="main" type="submit">
            Run them
          </Button>
        )}
      </form>
      {run && (
        <p role="status">
          {run.ended === 'stopped' ? 'Stopped after' : run.ended === 'done' ? 'All' : 'Done'} {run.done} of{' '}
          {run.of} cars
          <progress max={run.of} value={run.done} aria-label="Cars done" />
        </p>
      )}
      {run?.report && <Result report={run.report} />}
    </section>
  );
}

const percent = (share: number) => `${(100 * share).toFixed(1)} %`;

function Result({ report }: { report: Report }) {
  const bars = report.reliability.filter(({ claims }) => claims > 0);
  return (
    <>
      <table className={styles.table}>
        <caption className="unseen">Three ways to work, on the same cars</caption>
        <thead>
          <tr>
            <th scope="col">Way to work</th>
            <th scope="col">first finding right</th>
            <th scope="col">minutes a car</th>
            <th scope="col">needless parts, per 1000</th>
          </tr>
        </thead>
        <tbody>
          {ways.map(({ name, label }) => (
            <tr key={name}>
              <th scope="row">{label}</th>
              <td>{percent(report[name].right)}</td>
              <td>{report[name].minutesPerCar.toFixed(1)}</td>
              <td>{report[name].needlessPartsPer1000.toFixed(0)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p>
        Said and true differ by {percent(report.calibrationError)} on average, over{' '}
        {bars.reduce((sum, { claims }) => sum + claims, 0)} claims.
      </p>
      <ReliabilityChart of="these cars" bars={bars} />
    </>
  );
}
