import { useState } from 'react';
import { adviseReplacement } from '../../../core/visit/replacement';
import { adviceWords, wornWords } from '../../../core/visit/replacement/words';
import type { Position } from '../../../core/names/wheel';
import { wasDone } from '../../../core/job';
import { Button } from '../../kit/Button';
import { Dialog } from '../../kit/Dialog';
import { Choice, Picks, Field } from '../../kit/Field';
import { Notice } from '../../kit/Notice';
import styles from '../../kit/Forms.module.css';
import type { Sheet } from '../use-sheet';
import { WorthIt } from './WorthIt';

const tiresOptions = [
  { value: 'off', label: 'All tires come off today' },
  { value: 'on', label: 'Only where a sensor is replaced' },
] as const;

/** One sensor, some or the whole set: what is advised and why, what the customer wants, and what they do not. */
export function ReplaceDialog({ sheet }: { sheet: Sheet }) {
  const { view, job, judged, busy, problem, closed, edit, open, close } = sheet;
  const [tires, setTires] = useState<'on' | 'off'>(wasDone(job, 'tires-fitted') ? 'off' : 'on');
  const advice = adviseReplacement(job, {
    assessment: judged.assessment,
    tiresOff: tires === 'off',
    year: new Date().getFullYear(),
    curve: view.sensorCurve,
    prices: view.prices,
  });
  const [chosen, setChosen] = useState<readonly Position[] | undefined>(job.replacement?.wheels);
  const [note, setNote] = useState(job.replacement?.note ?? '');
  const wheels = chosen ?? advice.wheels;
  const declined = advice.wheels.filter((wheel) => !wheels.includes(wheel));
  const keep = () =>
    void edit({
      replacement: { wheels: [...wheels], declined, ...(note.trim() !== '' && { note: note.trim() }) },
    }).then((done) => {
      const [wheel] = wheels;
      if (done && wheel) open({ dialog: 'program', wheel });
      else if (done) close();
    });
  return (
    <Dialog title="Replace one or all" wide onClose={close}>
      <p>
        <b>{adviceWords(advice)}</b>
      </p>
      <Choice label="The tires" options={tiresOptions} value={tires} onValue={setTires} />
      <Picks
        label="Sensors to be replaced"
        options={advice.sensors.map((sensor) => ({
          value: sensor.wheel,
          label: `${sensor.wheel}, ${sensor.atFault ? 'at fault, ' : ''}${wornWords(sensor)}`,
        }))}
        values={wheels}
        onValues={(next) =>
          setChosen(advice.sensors.map(({ wheel }) => wheel).filter((at) => next.includes(at)))
        }
      />
      <p>
        {view.sensorCurve
          ? `How long sensors last is told from ${view.sensorCurve.ended} of this shop’s own that ended.`
          : 'How long sensors last is common practice, not this shop’s own experience: five to ten years, most between seven and ten.'}
      </p>
      {declined.length > 0 && (
        <Notice tone="note">
          Advised and not chosen: {declined.join(', ')}. The sheet says so. Where a sensor is silent the lamp
          stays on.
        </Notice>
      )}
      <Field label="Why, in the customer’s words" maxLength={500} value={note} onValue={setNote} />
      {problem && <Notice tone="wrong">{problem}</Notice>}
      <div className={styles.actions}>
        <Button weight="main" busy={busy} disabled={closed} onClick={keep}>
          {wheels.length > 0 ? 'Save the choice, and program' : 'Save the choice'}
        </Button>
      </div>
      <WorthIt advice={advice} curve={view.sensorCurve} prices={view.prices} />
    </Dialog>
  );
}
