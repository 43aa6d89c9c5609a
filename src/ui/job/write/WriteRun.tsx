import type { CarWrite, Job } from '../../../core/job';
import { ledgerOf } from '../../../core/job/ledger';
import { writeVerdict } from '../../../core/job/car-write';
import { groupedId, sameId } from '../../../core/names/sensor-id';
import { idsToWrite } from '../../../core/visit';
import type { Position } from '../../../core/names/wheel';
import { Button } from '../../kit/Button';
import { Dialog } from '../../kit/Dialog';
import { Notice } from '../../kit/Notice';
import styles from './WriteRun.module.css';

type RegistryWrite = Extract<CarWrite, { kind: 'registry' }>;

interface WriteRunProps {
  job: Job;
  /** The write of this run, once it was asked for. */
  write: RegistryWrite | undefined;
  busy: string | undefined;
  problem: string | undefined;
  onSend: (entries: { wheel: Position; id: string | null }[]) => void;
  onReadBack: (writeKey: string) => void;
  onClose: () => void;
}

const equal = (a: string | null, b: string | null) => (a === null || b === null ? a === b : sameId(a, b));
const shown = (id: string | null) => (id === null ? 'none' : groupedId(id));

/** A write to the car, whole screen: before, what is sent, and what the car holds when read back. */
export function WriteRun({ job, write, busy, problem, onSend, onReadBack, onClose }: WriteRunProps) {
  const { registered, voltage } = ledgerOf(job);
  const planned = idsToWrite(job);
  const rows = (write?.asked ?? planned).map(({ wheel, id }) => ({
    wheel,
    before: (write ? write.before.find((entry) => entry.wheel === wheel)?.id : registered[wheel]) ?? null,
    asked: id,
    back: write?.readBack ? (write.readBack.find((entry) => entry.wheel === wheel)?.id ?? null) : undefined,
    unheard: !write && planned.some((entry) => entry.wheel === wheel && entry.from === 'car'),
  }));
  const verdict = write && writeVerdict(write);
  return (
    <Dialog title="Register the IDs in the car" whole onClose={onClose}>
      <ol className={styles.steps}>
        <li className={write ? styles.passed : undefined}>Asked</li>
        <li className={write?.answeredAt ? styles.passed : undefined}>{answerWords(write)}</li>
        <li className={write?.readBackAt ? styles.passed : undefined}>Read back</li>
      </ol>
      <table className={styles.table}>
        <thead>
          <tr>
            <th scope="col">Wheel</th>
            <th scope="col">Before</th>
            <th scope="col">{write ? 'Asked' : 'To be sent'}</th>
            <th scope="col">Read back</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(({ wheel, before, asked, back, unheard }) => (
            <tr key={wheel}>
              <th scope="row">{wheel}</th>
              <td>
                <span className={styles.id}>{shown(before)}</span>
              </td>
              <td className={equal(before, asked) ? undefined : styles.changes}>
                <span className={styles.id}>{shown(asked)}</span>
                <span className={styles.note}>
                  {unheard ? 'not heard: stays as it is' : equal(before, asked) ? 'stays' : 'changes'}
                </span>
              </td>
              <td
                className={back === undefined ? undefined : equal(back, asked) ? styles.right : styles.wrong}
              >
                <span className={styles.id}>{back === undefined ? '–' : shown(back)}</span>
                {back !== undefined && (
                  <span className={styles.note}>
                    {equal(back, asked) ? 'as asked' : 'not what was asked'}
                  </span>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {problem && <Notice tone="wrong">{problem}</Notice>}
      {!write && (
        <>
          <p>
            {voltage ? `Supply ${voltage.seen.volts.toFixed(1)} V, engine ${voltage.seen.engine}. ` : ''}
            Ignition on, engine off, parking brake set. Nobody unplugs the lead until the read-back is done.
          </p>
          <Button
            weight="main"
            busy={busy}
            onClick={() => onSend(planned.map(({ wheel, id }) => ({ wheel, id })))}
          >
            Register {planned.filter(({ id }) => id !== null).length} IDs in the car
          </Button>
        </>
      )}
      {write && !busy && verdict === 'worked' && (
        <Notice tone="right">It worked: the car holds what was asked at every wheel.</Notice>
      )}
      {write && !busy && verdict === 'failed' && (
        <Notice tone="wrong">
          It failed. The car answered {write.answer === 'yes' ? '“yes”' : 'nothing'}, and holds something
          else. Switch the ignition off and on, then register them again.
        </Notice>
      )}
      {write && !busy && verdict === 'refused' && (
        <Notice tone="wrong">Nothing was written: {write.reason ?? 'the car gave no reason'}.</Notice>
      )}
      {write && !busy && verdict === 'unknown' && (
        <Notice tone="note">
          Unknown: the car was asked, and what it did is not known until it is read back.
        </Notice>
      )}
      {write && verdict === 'unknown' && (
        <Button weight="main" busy={busy} onClick={() => onReadBack(write.key)}>
          Read back
        </Button>
      )}
      {write && (verdict === 'failed' || verdict === 'refused') && (
        <Button
          weight="main"
          busy={busy}
          onClick={() => onSend(planned.map(({ wheel, id }) => ({ wheel, id })))}
        >
          Register again
        </Button>
      )}
      {verdict === 'worked' && (
        <Button weight="main" onClick={onClose}>
          Back to the job
        </Button>
      )}
    </Dialog>
  );
}

function answerWords(write: RegistryWrite | undefined): string {
  switch (write?.answer) {
    case 'yes':
      return 'Car answered “yes”';
    case 'no':
      return 'Car answered “no”';
    case 'lost':
      return 'Answer lost';
    case undefined:
      return 'Answered';
  }
}
