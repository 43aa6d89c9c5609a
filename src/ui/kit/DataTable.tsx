import { textsOf, type Table } from '../../core/records/table';
import styles from './DataTable.module.css';

/** A table with its title, and the way to take it away as a file: which says what stands here. */
export function DataTable({ table, csv, empty }: { table: Table; csv?: string; empty: string }) {
  const [labels = [], ...rows] = textsOf(table);
  const isNumber = (row: number, column: number) => typeof table.rows[row]?.[column] === 'number';
  return (
    <section className={styles.part} aria-label={table.title}>
      <div className={styles.top}>
        <h3>{table.title}</h3>
        {csv && rows.length > 0 && (
          <a className={styles.csv} href={csv} download>
            CSV
          </a>
        )}
      </div>
      {rows.length === 0 ? (
        <p>{empty}</p>
      ) : (
        // eslint-disable-next-line jsx-a11y/no-noninteractive-tabindex -- what scrolls is reached by keyboard too
        <div className={styles.wide} role="region" aria-label={`${table.title}, table`} tabIndex={0}>
          <table className={styles.table}>
            <thead>
              <tr>
                {labels.map((label, n) => (
                  <th key={label} scope="col" className={n > 0 && isNumber(0, n) ? styles.number : undefined}>
                    {label}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {rows.map((cells, at) => (
                <tr key={table.links?.[at] ?? cells.join()}>
                  {cells.map((text, n) => {
                    const link = n === 0 ? table.links?.[at] : undefined;
                    const shown = link ? <a href={link}>{text}</a> : text;
                    return n === 0 ? (
                      <th key={labels[n]} scope="row">
                        {shown}
                      </th>
                    ) : (
                      <td key={labels[n]} className={isNumber(at, n) ? styles.number : undefined}>
                        {shown}
                      </td>
                    );
                  })}
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
    </section>
  );
}
