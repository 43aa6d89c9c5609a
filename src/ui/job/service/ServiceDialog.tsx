import { useEffect, useState } from 'react';
import { cautionForWork } from '../../../core/visit/cautions';
import { partsFor, type Part } from '../../../core/sensor/part';
import { monitoredWheels } from '../../../core/job/placard';
import { programmedFor } from '../../../core/job/car-write';
import {
  expectedPrint,
  openSteps,
  serviceOf,
  serviceSteps,
  stepInstruction,
  type ServiceStep,
} from '../../../core/sensor/service';
import { positionName, type Position } from '../../../core/names/wheel';
import { ask } from '../../api';
import { Button } from '../../kit/Button';
import { Dialog } from '../../kit/Dialog';
import { Choice, Field, Select } from '../../kit/Field';
import { Notice } from '../../kit/Notice';
import formStyles from '../../kit/Forms.module.css';
import { IdField } from '../../parts/IdField';
import type { Sheet } from '../use-sheet';
import { draftOf, dropDraft, keepDraft, photoOf } from './kept-photos';
import { smallPhoto } from './photo';
import styles from './ServiceDialog.module.css';

/** The service of a sensor, wheel by wheel: the list in the order of hands, kit and torque, the printed ID. */
export function ServiceDialog({ sheet, wheel: first }: { sheet: Sheet; wheel?: Position | undefined }) {
  const { job, close } = sheet;
  const wheels = monitoredWheels(job);
  const [wheel, setWheel] = useState(first && wheels.includes(first) ? first : wheels[0]);
  const [parts, setParts] = useState<Part[]>();
  useEffect(() => {
    void ask('parts').then((asked) => setParts(asked.ok ? asked.value : []));
  }, []);
  const caution = cautionForWork('sensor-silent');
  return (
    <Dialog title="Service of a sensor" whole onClose={close}>
      {wheel === undefined ? (
        <p>This car compares wheel speeds; its wheels have no sensors.</p>
      ) : (
        <>
          <Choice
            label="At"
            options={wheels.map((at) => ({ value: at, label: `${at}${wordsFor(job, at)}` }))}
            value={wheel}
            onValue={setWheel}
          />
          {caution && <Notice tone="note">{caution}</Notice>}
          {parts && <Service key={wheel} {...{ sheet, wheel, parts }} />}
        </>
      )}
    </Dialog>
  );
}

function wordsFor(job: Sheet['job'], wheel: Position): string {
  const service = serviceOf(job, wheel);
  if (!service) return '';
  if (service.declined) return ', declined';
  const open = openSteps(service).length;
  return open === 0 ? ', done' : `, ${open} open`;
}

function Service({ sheet, wheel, parts }: { sheet: Sheet; wheel: Position; parts: readonly Part[] }) {
  const { job, service, busy, problem, closed } = sheet;
  const before = serviceOf(job, wheel);
  const fitting = partsFor(parts, job);
  const [partName, setPartName] = useState(before?.part ?? programmedFor(job, wheel)?.part ?? '');
  const [done, setDone] = useState<readonly string[]>(before?.done ?? []);
  const [printed, setPrinted] = useState(before?.printedId ?? '');
  const [nut, setNut] = useState(String(before?.torqueNm?.nut ?? ''));
  const [declined, setDeclined] = useState(before?.declined ?? '');
  const [photo, setPhoto] = useState<string>();
  const [wrong, setWrong] = useState<string>();
  const shown = usePhoto(
    sheet.view.id,
    wheel,
    photo ?? before?.photo,
    before?.hasPhoto === true ? before.key : undefined,
    setPhoto,
  );
  const part = fitting.find(({ name }) => name === partName);
  const expected = expectedPrint(job, wheel);
  const toggle = (step: ServiceStep, is: boolean) =>
    setDone(is ? [...done, step] : done.filter((other) => other !== step));
  const torque = Number(nut.replace(',', '.'));
  const keep = () =>
    void service({
      wheel,
      done: serviceSteps.filter((step) => done.includes(step)),
      ...(part && { part: part.name }),
      ...(part?.kit && done.includes('kit') && { kit: part.kit }),
      ...(torque > 0 && { torqueNm: { nut: torque } }),
      ...(printed.trim() !== '' && { printedId: printed.trim() }),
      ...(photo && { photo }),
      ...(declined.trim() !== '' && { declined: declined.trim() }),
    }).then((done) => {
      if (done && photo) void dropDraft(sheet.view.id, wheel);
    });
  const take = async (file: File | undefined) => {
    if (!file) return;
    const small = await smallPhoto(file);
    setPhoto(small);
    if (small) void keepDraft(sheet.view.id, wheel, small);
    setWrong(small ? undefined : 'This file is no picture that can be kept. Take another one.');
  };
  return (
    <form
      className={styles.service}
      onSubmit={(event) => {
        event.preventDefault();
        keep();
      }}
    >
      <div className={formStyles.form}>
        <Select
          label="Part"
          value={partName}
          options={[
            { value: '', label: 'the old one stays' },
            ...fitting.map(({ name, title }) => ({ value: name, label: `${title} (${name})` })),
          ]}
          onValue={setPartName}
        />
        <ol className={styles.steps}>
          {serviceSteps.map((step) => (
            <li key={step}>
              <label>
                <input
                  type="checkbox"
                  checked={done.includes(step)}
                  onChange={({ target }) => toggle(step, target.checked)}
                />
                {stepInstruction(step, part)}
              </label>
            </li>
          ))}
        </ol>
      </div>
      <div className={formStyles.form}>
        <IdField
          label={`Printed on the sensor, ${positionName[wheel]}`}
          value={printed}
          onValue={setPrinted}
          digits={job.vehicle.tpms.idDigits}
          known={expected}
        />
        <label className={styles.camera}>
          Photograph it
          <input
            type="file"
            accept="image/*"
            capture="environment"
            onChange={({ target }) => void take(target.files?.[0])}
          />
        </label>
        {wrong && <Notice tone="wrong">{wrong}</Notice>}
        {shown && (
          <img
            className={styles.photo}
            src={shown}
            alt={`The printed ID of the sensor, ${positionName[wheel]}`}
          />
        )}
        <Field label="Stem nut tightened to, Nm" inputMode="decimal" value={nut} onValue={setNut} />
        <Field
          label="Declined by the customer (what, and why)"
          hint="The lamp stays on while a sensor is missing; that is said on the sheet."
          maxLength={500}
          value={declined}
          onValue={setDeclined}
        />
        {problem && <Notice tone="wrong">{problem}</Notice>}
        {before && !problem && <Notice tone="right">Saved, by {before.by ?? 'somebody'}.</Notice>}
        <div>
          <Button weight="main" type="submit" busy={busy} disabled={closed}>
            Save the service of {wheel}
          </Button>
        </div>
      </div>
    </form>
  );
}

/**
 * The picture to be seen: the one just taken, else the one that was taken on this device and not kept in the shop yet,
 * else the one that was kept.
 */
function usePhoto(
  jobId: string,
  wheel: Position,
  taken: string | undefined,
  key: string | undefined,
  onDraft: (photo: string) => void,
): string | undefined {
  const [kept, setKept] = useState<string>();
  useEffect(() => {
    void draftOf(jobId, wheel).then((draft) => draft && onDraft(draft));
  }, [jobId, wheel, onDraft]);
  useEffect(() => {
    if (key) void photoOf(key).then(setKept);
  }, [key]);
  return taken ?? kept;
}
