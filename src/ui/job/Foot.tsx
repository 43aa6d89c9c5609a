import { useSyncExternalStore } from 'react';
import { canBePutOff } from '../../core/visit/put-off';
import { needsTechnician, technicianOnly } from '../../core/visit/rights';
import { moveWords } from '../../core/visit/words';
import { clockIsOff, onClock } from '../clock';
import { Button } from '../kit/Button';
import styles from './JobSheet.module.css';
import type { Sheet } from './use-sheet';

/** The next move, with why; or what stands in its way. */
export function Foot({ sheet, onTake }: { sheet: Sheet; onTake: () => void }) {
  const { move, units, opened, busy, closed, open } = sheet;
  const words = moveWords(move, units);
  const notYours = !sheet.mayRecord && needsTechnician(move);
  return (
    <div className={styles.foot} role="group" aria-label="Next move">
      <div className={styles.why}>
        <Why sheet={sheet} why={notYours ? technicianOnly : words.why} />
      </div>
      {canBePutOff(move) && !busy && !closed && !notYours && (
        <Button onClick={() => open({ dialog: 'put-off' })}>Not now</Button>
      )}
      <Button
        weight="main"
        className={styles.move}
        busy={opened ? undefined : busy}
        disabled={notYours}
        onClick={onTake}
      >
        {words.label}
      </Button>
    </div>
  );
}

function Why({ sheet: { visit, view, problem, opened, me }, why }: { sheet: Sheet; why: string }) {
  const off = useSyncExternalStore(onClock, clockIsOff, () => undefined);
  const refused = visit.waiting.find((item) => item.refused !== undefined);
  const unsent = visit.waiting.filter((item) => item.refused === undefined);
  const others = [...new Set(unsent.flatMap(({ by }) => (by && by.id !== me ? [by.name] : [])))];
  if (visit.problem?.code === 'not-signed-in') {
    return (
      <span role="alert">
        {problem} <a href={`/sign-in?next=/jobs/${view.id}`}>Sign in</a>
      </span>
    );
  }
  if (!visit.connected || unsent.length > 0) {
    return (
      <span role="status">
        {visit.connected ? '' : 'No connection. '}
        {unsent.length > 0
          ? `${unsent.length} saved on this device, not sent yet.`
          : 'What you enter is saved on this device, and sent later.'}
        {others.length > 0 &&
          ` Some of it was entered by ${others.join(' and ')}, and goes out once they sign in here.`}
      </span>
    );
  }
  if (refused) {
    return (
      <span role="alert">
        Not stored: {refused.refused}{' '}
        <Button weight="quiet" onClick={() => visit.dismissRefused(refused.key)}>
          Discard
        </Button>
      </span>
    );
  }
  if (problem && !opened) return <span role="alert">{problem}</span>;
  return (
    <>
      <b>Next</b>
      {why}
      {off && <span>The clock of this device is {off}; what you enter gets the shop’s time.</span>}
    </>
  );
}
