import { useId, useState, type ReactNode } from 'react';
import {
  CartesianGrid,
  ComposedChart,
  Line,
  ReferenceArea,
  ReferenceDot,
  ReferenceLine,
  ResponsiveContainer,
  Tooltip,
  XAxis,
  YAxis,
} from 'recharts';
import { Button } from './Button';
import styles from './Chart.module.css';

export interface Series {
  name: string;
  points: readonly { x: number; y: number }[];
  /** Points alone (full or hollow), or joined; series are told apart by dashes and marks, never by color alone. */
  look: 'line' | 'dashes' | 'dots' | 'points' | 'rings';
  tone?: Tone;
}
type Tone = 'ink' | 'clay' | 'agave' | 'ochre' | 'focus';

export interface Axis {
  label: string;
  /** A figure of this axis as it is read out, with its unit. */
  format: (value: number) => string;
  /** As short as a tick allows. Figures are in the unit that is shown, so that ticks fall on round ones. */
  tick: (value: number) => string;
  ticks?: number[];
}

export interface ChartProps {
  title: string;
  x: Axis;
  y: Axis;
  series: readonly Series[];
  /** Horizontal lines with a word. */
  levels?: readonly { y: number; label: string; tone: Tone }[];
  /** Vertical lines with a word. */
  moments?: readonly { x: number; label: string }[];
  /** Points with a word. */
  marks?: readonly { x: number; y: number; label: string }[];
  /** Between two heights all is well, or not. */
  band?: { from: number; to: number; label: string };
  /** What the chart is drawn from, for reading: a head and rows. */
  table: { head: readonly string[]; rows: readonly (readonly ReactNode[])[] };
}

const color = (tone: Tone = 'ink') => `var(--${tone})`;
const dashes: Record<Series['look'], string | undefined> = {
  line: undefined,
  dashes: '9 5',
  dots: '2 5',
  points: undefined,
  rings: undefined,
};
const isPoints = (look: Series['look']) => look === 'points' || look === 'rings';
const pointOf = (look: Series['look'], tone: Series['tone']) =>
  look === 'rings'
    ? { r: 6.5, fill: 'none', stroke: color(tone), strokeWidth: 2 }
    : { r: 5, fill: color(tone), strokeWidth: 0 };
const heightPx = 300;

/** A chart that is read with the arrow keys, and the table behind it. Loaded only where one is shown. */
export default function Chart(props: ChartProps) {
  const { title, table } = props;
  const [asTable, setAsTable] = useState(false);
  const id = useId();
  return (
    <figure className={styles.chart} aria-labelledby={`${id}-title`}>
      <figcaption id={`${id}-title`} className={styles.title}>
        <b>{title}</b>
        <Button weight="quiet" aria-expanded={asTable} onClick={() => setAsTable(!asTable)}>
          {asTable ? 'Show the chart' : 'Show as a table'}
        </Button>
      </figcaption>
      {asTable ? <Table table={table} /> : <Plot {...props} />}
    </figure>
  );
}

function Table({ table }: Pick<ChartProps, 'table'>) {
  return (
    <div className={styles.scroll}>
      <table className={styles.table}>
        <thead>
          <tr>
            {table.head.map((word) => (
              <th key={word} scope="col">
                {word}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {table.rows.map((cells, row) => (
            <tr key={row}>
              {cells.map((cell, column) => (
                <td key={column} className={column === 0 ? undefined : 'figures'}>
                  {cell}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** What the chart is drawn from: a row for each place on the axis, with the figure of each series there. */
function rowsOf(series: readonly Series[]) {
  const xs = [...new Set(series.flatMap(({ points }) => points.map((point) => point.x)))].sort(
    (a, b) => a - b,
  );
  return xs.map((value) => ({
    x: value,
    ...Object.fromEntries(
      series.flatMap(({ name, points }) => {
        const found = points.find((point) => point.x === value);
        return found ? [[name, found.y]] : [];
      }),
    ),
  }));
}

function Plot({ title, x, y, series, levels = [], moments = [], marks = [], band }: ChartProps) {
  return (
    <div className={styles.plot}>
      <ResponsiveContainer width="100%" height={heightPx}>
        <ComposedChart
          data={rowsOf(series)}
          margin={{ top: 12, right: 18, bottom: 22, left: 6 }}
          title={title}
          desc={`${y.label} over ${x.label}. Left and right arrow keys read it point by point.`}
        >
          <CartesianGrid stroke="var(--rule)" vertical={false} />
          <XAxis
            dataKey="x"
            type="number"
            domain={x.ticks ? ['dataMin', 'dataMax'] : ['auto', 'auto']}
            tickFormatter={x.tick}
            stroke="var(--ink-soft)"
            label={{ value: x.label, position: 'insideBottom', offset: -14, fill: 'var(--ink-soft)' }}
            {...(x.ticks && { ticks: x.ticks })}
          />
          <YAxis
            type="number"
            domain={['auto', 'auto']}
            tickFormatter={y.tick}
            stroke="var(--ink-soft)"
            width={56}
          />
          {band && (
            <ReferenceArea
              y1={band.from}
              y2={band.to}
              fill="var(--agave)"
              fillOpacity={0.14}
              ifOverflow="extendDomain"
              stroke="none"
              label={{ value: band.label, position: 'insideTopRight', fill: 'var(--agave)' }}
            />
          )}
          {levels.map((level) => (
            <ReferenceLine
              key={level.label}
              y={level.y}
              ifOverflow="extendDomain"
              stroke={color(level.tone)}
              strokeWidth={2}
              strokeDasharray={level.tone === 'agave' ? '10 4' : undefined}
              label={{
                value: level.label,
                // Under the line that lights the lamp, over the one that puts it out.
                position: level.tone === 'clay' ? 'insideTopRight' : 'insideBottomRight',
                fill: color(level.tone),
              }}
            />
          ))}
          {moments.map((moment) => (
            <ReferenceLine
              key={moment.label}
              x={moment.x}
              stroke="var(--ink-soft)"
              strokeDasharray="3 3"
              label={{ value: moment.label, position: 'insideTopLeft', fill: 'var(--ink-soft)' }}
            />
          ))}
          <Tooltip
            separator=": "
            isAnimationActive={false}
            labelFormatter={(value) => `${x.label}: ${x.format(Number(value))}`}
            formatter={(value, name) => [y.format(Number(value)), String(name)]}
            contentStyle={{
              background: 'var(--sheet)',
              border: '2px solid var(--ink)',
              borderRadius: 3,
              color: 'var(--ink)',
            }}
            itemStyle={{ color: 'var(--ink)' }}
          />
          {series.map(({ name, look, tone }) => (
            <Line
              key={name}
              dataKey={name}
              name={name}
              stroke={color(tone)}
              strokeWidth={isPoints(look) ? 0 : 2.5}
              strokeDasharray={dashes[look]}
              dot={isPoints(look) ? pointOf(look, tone) : false}
              connectNulls={!isPoints(look)}
              isAnimationActive={false}
              type="linear"
            />
          ))}
          {marks.map((mark) => (
            <ReferenceDot
              key={mark.label}
              x={mark.x}
              ifOverflow="extendDomain"
              y={mark.y}
              r={6}
              fill="var(--sheet)"
              stroke="var(--ink)"
              strokeWidth={2.5}
              label={{ value: mark.label, position: 'top', fill: 'var(--ink)' }}
            />
          ))}
        </ComposedChart>
      </ResponsiveContainer>
      <Legend series={series} />
    </div>
  );
}

/** Which look is which series. */
function Legend({ series }: Pick<ChartProps, 'series'>) {
  return (
    <ul className={styles.legend}>
      {series.map(({ name, look, tone }) => (
        <li key={name}>
          <svg width="34" height="12" aria-hidden="true">
            {isPoints(look) ? (
              <circle cx="17" cy="6" {...pointOf(look, tone)} r={4.5} />
            ) : (
              <line
                x1="1"
                x2="33"
                y1="6"
                y2="6"
                stroke={color(tone)}
                strokeWidth="2.5"
                strokeDasharray={dashes[look]}
              />
            )}
          </svg>
          {name}
        </li>
      ))}
    </ul>
  );
}
