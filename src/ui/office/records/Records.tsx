import type { Place } from '../../../core/measure/calendar';
import { BringIn } from './BringIn';
import { Told, Tokens } from './Programs';
import styles from './Records.module.css';
import { Traces } from './Traces';

/** What the shop has on file, taken away, brought in, read by programs, and who saw it: for a manager. */
export function Records({ people, place }: { people: string[]; place: Place }) {
  return (
    <main className={styles.records}>
      <h1>Records</h1>
      <section className={styles.group} aria-labelledby="take-away">
        <h2 id="take-away">Take away</h2>
        <ul className={styles.links}>
          <li>
            <a href="/api/tables/jobs.csv" download>
              All jobs, as CSV
            </a>
          </li>
          <li>
            <a href="/api/jobs.jsonl" download>
              All job files, as JSON Lines
            </a>
          </li>
          <li>
            <a href="/api/tables/customers.csv" download>
              Customers, as CSV
            </a>
          </li>
          <li>
            <a href="/api/tables/gauges.csv" download>
              Gauges, as CSV
            </a>
          </li>
          <li>
            <a href="/api/tables/stored-sets.csv" download>
              Wheel sets in the shop, as CSV
            </a>
          </li>
          <li>
            <a href="/api/tables/follow-ups.csv" download>
              What is to be looked at again, as CSV
            </a>
          </li>
        </ul>
        <p>
          The file of one vehicle is on its page. A backup of everything is a command:{' '}
          <code>./hacienda backup FILE</code>
        </p>
      </section>
      <BringIn place={place} />
      <Tokens place={place} />
      <Told place={place} />
      <Traces people={people} />
    </main>
  );
}
