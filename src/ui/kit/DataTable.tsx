import {
  columnFilteringFeature,
  columnVisibilityFeature,
  createColumnHelper,
  createFilteredRowModel,
  createSortedRowModel,
  globalFilteringFeature,
  rowSortingFeature,
  sortFn_alphanumeric,
  sortFn_basic,
  tableFeatures,
  useTable,
  type Column,
  type Row,
} from '@tanstack/react-table';
import { useVirtualizer } from '@tanstack/react-virtual';
import { ArrowDown, ArrowUp, ChevronsUpDown } from 'lucide-react';
import { useMemo, useRef, useState } from 'react';
import { textsOf, type Cell as Value, type Table } from '../../core/records/table';
import styles from './DataTable.module.css';
import { Field, Picks } from './Field';
import { useKept } from './use-kept';

interface Line {
  cells: readonly Value[];
  texts: readonly string[];
  link: string | undefined;
}

const features = tableFeatures({
  rowSortingFeature,
  columnFilteringFeature,
  globalFilteringFeature,
  columnVisibilityFeature,
  sortedRowModel: createSortedRowModel(),
  filteredRowModel: createFilteredRowModel(),
  sortFns: { basic: sortFn_basic, alphanumeric: sortFn_alphanumeric },
});
type Features = typeof features;

const column = createColumnHelper<Features, Line>();

/** From so many rows on a table can be narrowed, and from so many only those in sight are drawn. */
const rowsToNarrow = 20;
const rowsToDraw = 80;
const columnsToChoose = 4;

/** A table with its title: sorted by its heads, narrowed, its columns chosen; and the way to take all of it away. */
export function DataTable({ table, csv, empty }: { table: Table; csv?: string; empty: string }) {
  const [away, keepAway] = useKept(`columns-away.${table.name}`);
  const [wanted, setWanted] = useState('');
  const lines = useMemo(() => linesOf(table), [table]);
  const columns = useMemo(() => columnsOf(table), [table]);
  const labelOf = ({ id }: { id: string }) => table.columns[Number(id)]?.label ?? '';
  const hidden = away.split('\n');
  const isShown = (n: number) => n === 0 || !hidden.includes(table.columns[n]?.label ?? '');
  const canNarrow = lines.length >= rowsToNarrow;
  const shown = useTable({
    features,
    columns,
    data: lines,
    // By what is shown, in the columns that are shown.
    globalFilterFn: ({ original }, id, text: string) => holds(original.texts[Number(id)], text),
    getColumnCanGlobalFilter: ({ id }) => isShown(Number(id)),
    state: {
      // A table that grew short has no field to narrow it by any more.
      globalFilter: canNarrow ? wanted : '',
      columnVisibility: Object.fromEntries(table.columns.map((_, n) => [String(n), isShown(n)])),
    },
  });
  const { rows } = shown.getRowModel();
  const [, ...canGo] = shown.getAllLeafColumns();
  return (
    <section className={styles.part} aria-label={table.title}>
      <div className={styles.top}>
        <h3>{table.title}</h3>
        {csv && lines.length > 0 && (
          <a className={styles.csv} href={csv} download>
            CSV
          </a>
        )}
      </div>
      {canNarrow && (
        <Field
          label="Only rows with"
          type="search"
          value={wanted}
          onValue={setWanted}
          hint={wanted && `${rows.length} of ${lines.length}`}
        />
      )}
      {lines.length > 0 && canGo.length >= columnsToChoose && (
        <details className={styles.choose}>
          <summary>Columns</summary>
          <Picks
            label="Columns that are shown"
            options={canGo.map((one) => ({ value: one.id, label: labelOf(one) }))}
            values={canGo.flatMap((one) => (one.getIsVisible() ? [one.id] : []))}
            onValues={(ids) =>
              keepAway(canGo.flatMap((one) => (ids.includes(one.id) ? [] : labelOf(one))).join('\n'))
            }
          />
        </details>
      )}
      {lines.length === 0 ? (
        <p>{empty}</p>
      ) : (
        <Sheet table={table} heads={shown.getVisibleLeafColumns()} rows={rows} />
      )}
    </section>
  );
}

const holds = (shown = '', wanted: string): boolean =>
  shown.toLowerCase().includes(wanted.trim().toLowerCase());

function linesOf(table: Table): Line[] {
  const [, ...texts] = textsOf(table);
  return table.rows.map((cells, at) => ({ cells, texts: texts[at] ?? [], link: table.links?.[at] }));
}

/** Named by their place; figures are sorted as figures, what is not known stands last. */
const columnsOf = (table: Table) =>
  column.columns(
    table.columns.map((_, n) =>
      column.accessor(({ cells }) => cells[n] ?? undefined, {
        id: String(n),
        sortFn: isNumber(table, n) ? 'basic' : 'alphanumeric',
        sortUndefined: 'last',
      }),
    ),
  );

const isNumber = ({ rows }: Table, column: number): boolean =>
  rows.some((cells) => typeof cells[column] === 'number');

interface SheetProps {
  table: Table;
  heads: readonly Column<Features, Line>[];
  rows: readonly Row<Features, Line>[];
}

/** What is drawn of it: all rows, or those in sight of a long one. */
function Sheet({ table, heads, rows }: SheetProps) {
  const frame = useRef<HTMLDivElement>(null);
  const isLong = rows.length > rowsToDraw;
  // eslint-disable-next-line react-hooks/incompatible-library -- its answers are read where they are drawn, no further
  const inSight = useVirtualizer({
    count: rows.length,
    enabled: isLong,
    getScrollElement: () => frame.current,
    estimateSize: () => 44,
    overscan: 20,
  });
  const drawn = inSight.getVirtualItems();
  const [top, bottom] = [drawn[0], drawn.at(-1)];
  const isDrawn = isLong && top && bottom;
  const [first, end] = isDrawn ? [top.index, bottom.index + 1] : [0, isLong ? rowsToDraw : rows.length];
  return (
    <div
      ref={frame}
      className={isLong ? `${styles.wide} ${styles.long}` : styles.wide}
      role="region"
      aria-label={`${table.title}, table`}
      // eslint-disable-next-line jsx-a11y/no-noninteractive-tabindex -- what scrolls is reached by keyboard too
      tabIndex={0}
    >
      <table className={styles.table} aria-rowcount={isLong ? rows.length + 1 : undefined}>
        <thead>
          <tr>
            {heads.map((head) => (
              <Head key={head.id} head={head} table={table} />
            ))}
          </tr>
        </thead>
        <tbody>
          {isDrawn && <Gap px={top.start} columns={heads.length} />}
          {rows.slice(first, end).map(({ id, original }, n) => (
            <tr
              key={id}
              ref={isLong ? inSight.measureElement : undefined}
              data-index={first + n}
              aria-rowindex={isLong ? first + n + 2 : undefined}
            >
              {heads.map((head) => (
                <Cell key={head.id} line={original} at={Number(head.id)} />
              ))}
            </tr>
          ))}
          {isDrawn && <Gap px={inSight.getTotalSize() - bottom.end} columns={heads.length} />}
        </tbody>
      </table>
    </div>
  );
}

/** Where rows that are not drawn would stand. */
const Gap = ({ px, columns }: { px: number; columns: number }) =>
  px > 0 && (
    <tr aria-hidden="true">
      <td colSpan={columns} style={{ height: px, padding: 0 }} />
    </tr>
  );

const sortWords = { asc: 'ascending', desc: 'descending' } as const;

/** A press sorts by it, another the other way round, a third no more. */
function Head({ head, table }: { head: Column<Features, Line>; table: Table }) {
  const sorted = head.getIsSorted();
  const at = Number(head.id);
  return (
    <th
      scope="col"
      aria-sort={sorted ? sortWords[sorted] : undefined}
      className={at > 0 && isNumber(table, at) ? styles.number : undefined}
    >
      <button type="button" className={styles.head} onClick={head.getToggleSortingHandler()}>
        {table.columns[at]?.label}
        {!sorted && <ChevronsUpDown aria-hidden="true" />}
        {sorted === 'asc' && <ArrowUp aria-hidden="true" />}
        {sorted === 'desc' && <ArrowDown aria-hidden="true" />}
      </button>
    </th>
  );
}

function Cell({ line: { cells, texts, link }, at }: { line: Line; at: number }) {
  if (at > 0)
    return <td className={typeof cells[at] === 'number' ? styles.number : undefined}>{texts[at]}</td>;
  return <th scope="row">{link ? <a href={link}>{texts[0]}</a> : texts[0]}</th>;
}
