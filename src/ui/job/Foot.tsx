import { moveWords } from '../../core/visit/words';
import { Button } from '../kit/Button';
import styles from './JobSheet.module.css';
import type { Sheet } from './use-sheet';

/** The next move, with why; or what stands in its way. */
export function Foot({ sheet, onTake }: { sheet: Sheet; onTake: () => void }) {
  const { move, units, opened, busy } = sheet;
  const words = moveWords(move, units);
  return (
    <div className={styles.foot} role="group" aria-label="Next move">
      <div className={styles.why}>
        <Why sheet={sheet} why={words.why} />
      </div>
      <Button weight="main" className={styles.move} busy={opened ? undefined : busy} onClick={onTake}>
        {words.label}
      </Button>
    </div>
  );
}

function Why({ sheet: { visit, view, problem, opened }, why }: { sheet: Sheet; why: string }) {
  const refused = visit.waiting.find((item) => item.refused !== undefined);
  const unsent = visit.waiting.filter((item) => item.refused === undefined).length;
  if (visit.problem?.code === 'not-signed-in') {
    return (
      <span role="alert">
        {problem} <a href={`/sign-in?next=/jobs/${view.id}`}>Sign in</a>
      </span>
    );
  }
  if (!visit.connected || unsent > 0) {
    return (
      <span role="status">
        {visit.connected ? '' : 'No connection. '}
        {unsent > 0 ? `${unsent} kept on this device, on the way.` : 'What you enter is kept here.'}
      </span>
    );
  }
  if (refused) {
    return (
      <span role="alert">
        Not stored: {refused.refused}{' '}
        <Button weight="quiet" onClick={() => visit.dismissRefused(refused.key)}>
          Drop it
        </Button>
      </span>
    );
  }
  if (problem && !opened) return <span role="alert">{problem}</span>;
  return (
    <>
      <b>Next</b>
      {why}
    </>
  );
}
