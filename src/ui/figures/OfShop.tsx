import { useEffect, useRef, useState } from 'react';
import type { FiguresOfShop } from '../../contract';
import { weeksOffered } from '../../contract/figures';
import type { TableName } from '../../core/records/shop-figures';
import { ask } from '../api';
import { DataTable } from '../kit/DataTable';
import { Choice, Select } from '../kit/Field';
import { LazyChart } from '../kit/LazyChart';
import { Notice } from '../kit/Notice';
import styles from './Figures.module.css';
import { ReliabilityChart } from './ReliabilityChart';

const usualWeeks = '13';
type Weeks = (typeof weeksOffered)[number];

const percent = (share: number) => `${Math.round(share)} %`;
const count = (value: number) => value.toFixed(0);

/** What a table says where it has no rows. */
const empty: Partial<Record<TableName, string>> = {
  weeks: 'No car was booked in or handed over in these weeks.',
  people: 'No car was handed over in these weeks.',
  minutes: 'No car was handed over in these weeks.',
  back: 'No car came back.',
  faults: 'Nothing was said at hand-over of what parts turned out to be.',
  needless: 'None that anybody said so of.',
  sureness: 'Nothing to compare yet: say at hand-over what the parts turned out to be.',
  'gauges-due': 'Every gauge in use is checked.',
};

/** What the shop did, by week and person, for its manager. */
export function OfShop({ initial }: { initial: FiguresOfShop | undefined }) {
  const [weeks, setWeeks] = useState<Weeks>(usualWeeks);
  const [by, setBy] = useState('');
  const [figures, setFigures] = useState(initial);
  const [problem, setProblem] = useState<string>();
  const query = { weeks, ...(by && { by }) };
  const address = new URLSearchParams(query).toString();

  const shown = useRef(initial && new URLSearchParams({ weeks: usualWeeks }).toString());
  useEffect(() => {
    if (shown.current === address) return undefined;
    shown.current = undefined;
    let isLate = false;
    void ask('shopFigures', { query: Object.fromEntries(new URLSearchParams(address)) }).then((answer) => {
      if (isLate) return;
      setProblem(answer.ok ? undefined : answer.problem.message);
      if (answer.ok) setFigures(answer.value);
    });
    return () => {
      isLate = true;
    };
  }, [address]);

  return (
    <section className={styles.figures} aria-labelledby="of-shop">
      <h2 id="of-shop">What the shop did</h2>
      <div className={styles.start}>
        <Choice
          label="Weeks"
          options={weeksOffered.map((value) => ({ value, label: value }))}
          value={weeks}
          onValue={setWeeks}
        />
        <Select
          label="Handed over by"
          value={by}
          onValue={setBy}
          options={[
            { value: '', label: 'anybody' },
            ...(figures?.people ?? []).map((name) => ({ value: name, label: name })),
          ]}
        />
      </div>
      {problem && <Notice tone="wrong">{problem}</Notice>}
      {!figures && !problem && <p role="status">Counting…</p>}
      {figures && <Tables figures={figures} address={address} />}
    </section>
  );
}

function Tables({ figures, address }: { figures: FiguresOfShop; address: string }) {
  const { sureness, fitted } = figures;
  return figures.tables.map((table) => (
    <div key={table.name} className={styles.figures}>
      {table.name === 'weeks' && table.rows.length > 1 && <Weekly rows={table.rows} />}
      <DataTable
        table={table}
        csv={`/api/tables/${table.name}.csv?${address}`}
        empty={empty[table.name as TableName] ?? ''}
      />
      {table.name === 'needless' && (
        <p>
          {fitted === 0 ? 'No sensor was replaced' : `Of ${fitted} sensors that were replaced`} in these
          weeks.
        </p>
      )}
      {table.name === 'sureness' &&
        (sureness ? (
          <p>
            Of the last {sureness.visits} visits of which somebody said what it was.{' '}
            {sureness.missed === 1
              ? 'One fault was there of which nothing was said.'
              : `${sureness.missed} faults were there of which nothing was said.`}
          </p>
        ) : (
          <p role="status">They are being compared now. Look again in a minute.</p>
        ))}
      {table.name === 'sureness' && sureness && table.rows.length > 0 && (
        <ReliabilityChart of="this shop" bars={sureness.bars} />
      )}
    </div>
  ));
}

type Rows = FiguresOfShop['tables'][number]['rows'];
const numberAt = (row: Rows[number], at: number): number | undefined => {
  const cell = row[at];
  return typeof cell === 'number' ? cell : undefined;
};
const pointsOf = (rows: Rows, at: number) =>
  rows.flatMap((row, x) => {
    const y = numberAt(row, at);
    return y === undefined ? [] : [{ x, y }];
  });

/** The columns of the table by week that are drawn. */
const weekly = { handedOver: 2, median: 3, proved: 5, back: 6 } as const;

/** Cars come whole: between two of them no line has a name. */
const whole = (value: number) => (Number.isInteger(value) ? String(value) : '');

/** In a week without cars nothing was seen: points, not a line across it. */
function Weekly({ rows }: { rows: Rows }) {
  const weekAt = (x: number) => String(rows[Math.round(x)]?.[0] ?? '');
  const axis = {
    label: 'week',
    format: weekAt,
    tick: (x: number) => weekAt(x).slice(5),
    ticks: rows.map((_, x) => x).filter((x) => x % Math.ceil(rows.length / 6) === 0),
  };
  const head = (label: string) => ({ head: ['Week', label] });
  const body = (at: number) => rows.map((row) => [String(row[0]), row[at] ?? '']);
  return (
    <div className={styles.charts}>
      <LazyChart
        title="Cars handed over, and those that came back"
        x={axis}
        y={{ label: 'cars', format: count, tick: whole }}
        series={[
          { name: 'handed over', look: 'line', tone: 'ink', points: pointsOf(rows, weekly.handedOver) },
          { name: 'came back', look: 'dashes', tone: 'clay', points: pointsOf(rows, weekly.back) },
        ]}
        table={{
          head: ['Week', 'handed over', 'came back'],
          rows: rows.map((row) => [String(row[0]), row[weekly.handedOver] ?? '', row[weekly.back] ?? '']),
        }}
      />
      <LazyChart
        title="Minutes in the shop: half took less"
        x={axis}
        y={{ label: 'minutes', format: count, tick: count }}
        series={[{ name: 'minutes', look: 'points', tone: 'ink', points: pointsOf(rows, weekly.median) }]}
        table={{ ...head('minutes'), rows: body(weekly.median) }}
      />
      <LazyChart
        title="Handed over proved"
        x={axis}
        y={{ label: 'proved', format: percent, tick: percent, ticks: [0, 25, 50, 75, 100] }}
        series={[{ name: 'proved', look: 'points', tone: 'agave', points: pointsOf(rows, weekly.proved) }]}
        table={{ ...head('proved, %'), rows: body(weekly.proved) }}
      />
    </div>
  );
}
