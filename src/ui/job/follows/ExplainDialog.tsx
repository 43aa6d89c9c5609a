import { cautionForWork } from '../../../core/visit/cautions';
import { damageAt } from '../../../core/tire/damage';
import { damageWords } from '../../../core/tire/damage/words';
import { repairOutcomesOf } from '../../../core/job/repair-outcome';
import { format, pressure } from '../../../core/measure/units';
import { positionName, type Position } from '../../../core/names/wheel';
import { Button } from '../../kit/Button';
import { Dialog } from '../../kit/Dialog';
import { Notice } from '../../kit/Notice';
import styles from '../../kit/Forms.module.css';
import type { Sheet } from '../use-sheet';

/** What was seen of a tire, and what it turned out to be: by whoever had it in hand. */
export function ExplainDialog({ sheet, wheel }: { sheet: Sheet; wheel: Position }) {
  const { job, units, busy, problem, closed, mayConfirm, act, repaired, open, close } = sheet;
  const damage = damageAt(job, wheel);
  const caution = cautionForWork('tire-leaking');
  const inOrder = () =>
    void act('Saving…', 'confirm', {
      parts: [
        ...repairOutcomesOf(job).filter((one) => !(one.part === 'tire' && one.wheel === wheel)),
        { part: 'tire', wheel, was: 'in-order' },
      ],
    }).then((done) => done && close());
  return (
    <Dialog title={`What was seen at ${wheel}`} onClose={close}>
      <p>
        <b>
          {positionName[wheel]}: {damageWords(damage, (kPa) => format(pressure, kPa, units))}.
        </b>
      </p>
      <p>
        {!damage.found?.nearFlat
          ? 'Full pressure does not say that it holds: soapy water at tread, bead, valve core and stem does.'
          : 'A tire that was found near flat is taken off and looked at inside before it goes on: rolling so hurts what cannot be seen.'}{' '}
        A damaged sidewall is not repaired: another tire.
      </p>
      {caution && <Notice tone="note">{caution}</Notice>}
      {problem && <Notice tone="wrong">{problem}</Notice>}
      <div className={styles.actions}>
        <Button weight="main" busy={busy} disabled={closed} onClick={() => repaired(wheel)}>
          Repaired, or another tire
        </Button>
        <Button disabled={closed || !mayConfirm} onClick={inOrder}>
          Looked into: in order
        </Button>
        <Button onClick={() => open({ dialog: 'look', wheel })}>Look again</Button>
        <Button onClick={() => open({ dialog: 'hand-over' })}>Leave it as it is</Button>
      </div>
    </Dialog>
  );
}
