import { useState } from 'react';
import { partName, type RepairOutcome } from '../../core/job/repair-outcome';
import { historyMayMoveBy, plainChance } from '../../core/judgement/diagnosis';
import { findingCodes, recordOf } from '../../core/catalogue/finding';
import type { ConfirmedVisit, ShopFigures } from '../../contract/views';
import { day, type Place } from '../../core/measure/calendar';
import { ask } from '../api';
import { useDeeds } from '../deeds';
import { Button } from '../kit/Button';
import { Notice } from '../kit/Notice';
import styles from './Figures.module.css';

/** What this shop's cars turned out to have, what that does to the engine's priors, and a way to take it back. */
export function Learned({
  initial,
  mayChange,
  place,
}: {
  initial: ShopFigures;
  mayChange: boolean;
  place: Place;
}) {
  const [figures, setFigures] = useState(initial);
  /** Taken back on this screen: they stay in sight, so that they can be put back. */
  const [taken, setTaken] = useState<ConfirmedVisit[]>([]);
  const { once, busy, problem } = useDeeds();
  /** The visit that is being changed. */
  const [at, setAt] = useState<string>();

  const say = async (visit: ConfirmedVisit, parts: RepairOutcome[]) => {
    setAt(visit.jobId);
    const fresh = await once(`${visit.jobId} ${JSON.stringify(parts)}`, async (key) => {
      const stored = await ask('confirm', { id: visit.jobId, body: { key, parts } });
      return stored.ok ? ask('figures') : stored;
    });
    if (!fresh?.ok) return;
    setFigures(fresh.value);
    setTaken((before) => [
      ...before.filter(({ jobId }) => jobId !== visit.jobId),
      ...(parts.length === 0 ? [visit] : []),
    ]);
  };

  const rows = findingCodes.flatMap((code) => {
    const count = figures.experience[code];
    const usual = plainChance(code);
    return count && usual !== undefined ? [{ code, count, usual }] : [];
  });
  return (
    <section className={styles.figures} aria-labelledby="learned">
      <h2 id="learned">What this shop’s cars turned out to have</h2>
      {rows.length === 0 ? (
        <p>
          Nothing is confirmed yet. Say at hand-over what the parts turned out to be: it is counted here, and
          makes the next findings surer.
        </p>
      ) : (
        <>
          <p>
            Each confirmed part counts. What is found more often here than the model expects of these very
            cars, it takes for more likely: slowly, and never beyond five times either way. A job is judged by
            what was confirmed before it came in.
          </p>
          <table className={styles.table}>
            <caption className="unseen">Counts by fault</caption>
            <thead>
              <tr>
                <th scope="col">Fault</th>
                <th scope="col">had it, of</th>
                <th scope="col">expected</th>
                <th scope="col">chance, %</th>
              </tr>
            </thead>
            <tbody>
              {rows.map(({ code, count, usual }) => {
                const factor = historyMayMoveBy(code, usual, figures.experience);
                return (
                  <tr key={code}>
                    <th scope="row">{recordOf(code).title}</th>
                    <td>
                      {count.had} of {count.of}
                    </td>
                    <td>{count.expected.toFixed(1)}</td>
                    <td>
                      {tenths(usual)} → {tenths(usual * factor)}
                    </td>
                  </tr>
                );
              })}
            </tbody>
          </table>
        </>
      )}
      {problem && <Notice tone="wrong">{problem.message}</Notice>}
      <ul className={styles.visits}>
        {[...figures.visits, ...taken].map((visit) => {
          const isTaken = taken.includes(visit);
          return (
            <li key={visit.jobId}>
              <div>
                <a href={`/jobs/${visit.jobId}`}>
                  Job {visit.number}, {visit.label} {visit.plate}
                </a>
                <span>
                  {isTaken && 'Taken back, counts no more. '}
                  {day(visit.at, place)}, {visit.by}: {saidOf(visit.parts)}
                </span>
              </div>
              {mayChange && (
                <Button
                  busy={at === visit.jobId ? busy : undefined}
                  onClick={() => void say(visit, isTaken ? visit.parts : [])}
                >
                  {isTaken ? 'Put back' : 'Take back'}
                </Button>
              )}
            </li>
          );
        })}
      </ul>
    </section>
  );
}

/** Priors are small: a tenth of a percent counts. */
const tenths = (chance: number): string => (100 * chance).toFixed(1);

/** The parts at fault one by one, the others as a number. */
function saidOf(parts: readonly RepairOutcome[]): string {
  const faults = parts.flatMap(({ was, ...part }) =>
    was === 'in-order' ? [] : [`${partName(part)}: ${recordOf(was).title}`],
  );
  const fine = parts.length - faults.length;
  return [...faults, ...(fine > 0 ? [`${fine} ${fine === 1 ? 'part' : 'parts'} in order`] : [])].join('; ');
}
