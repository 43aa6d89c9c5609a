import { Tag } from 'lucide-react';
import { useEffect, useState } from 'react';
import { ledgerOf } from '../../../core/job/ledger';
import { doubtsAbout, partsFor, type Part } from '../../../core/sensor/part';
import { doubtWords, stemWords, torqueWords } from '../../../core/sensor/part/words';
import { monitoredWheels } from '../../../core/job/placard';
import { groupedId, sameId, spellAloud } from '../../../core/names/sensor-id';
import { oldIdsAt, type ProgrammingMode } from '../../../core/sensor/programming';
import { modeWords, oldIdWords, programmingWords, teachWords } from '../../../core/sensor/programming/words';
import { plateOf } from '../../../core/job/header';
import { positionName, type Position } from '../../../core/names/wheel';
import { ask } from '../../api';
import { Button } from '../../kit/Button';
import { Dialog } from '../../kit/Dialog';
import { Choice, Select } from '../../kit/Field';
import { Notice } from '../../kit/Notice';
import { optionsFrom } from '../../kit/options';
import { IdField } from '../../parts/IdField';
import type { Sheet } from '../use-sheet';
import { PracticeBox } from './PracticeBox';
import styles from './ProgramDialog.module.css';
import { programmingVerdict, sensorWrites, type SensorWrite } from '../../../core/job/car-write';

/** Programs a sensor for one wheel after the other: which part, which ID, asked, answered, read back, and its label. */
export function ProgramDialog({ sheet, wheel: first }: { sheet: Sheet; wheel?: Position | undefined }) {
  const { job, view, close, closed } = sheet;
  const wheels = monitoredWheels(job);
  const [wheel, setWheel] = useState(first && wheels.includes(first) ? first : wheels[0]);
  const [again, setAgain] = useState(false);
  const { parts, problem } = useParts();
  const writes = sensorWrites(job);
  if (!wheel)
    return (
      <Dialog title="No sensors to program" onClose={close}>
        <p>This car compares wheel speeds; its wheels have no sensors.</p>
      </Dialog>
    );
  const lastAt = (at: Position) => writes.findLast((write) => write.wheel === at);
  const last = lastAt(wheel);
  const programmed = last && programmingVerdict(last);
  const next = wheels.find((at) => lastAt(at) === undefined);
  const go = (at: Position) => {
    setWheel(at);
    setAgain(false);
  };
  return (
    <Dialog title="Program a sensor" whole onClose={close}>
      <div className={styles.layout}>
        <ol className={styles.wheels} aria-label="Wheels">
          {wheels.map((at) => {
            const write = lastAt(at);
            return (
              <li key={at}>
                <button type="button" aria-current={at === wheel ? 'true' : undefined} onClick={() => go(at)}>
                  <b>{at}</b>
                  <span>{write ? shortWords[programmingVerdict(write)] : 'not programmed'}</span>
                  {write && <span className="figures">{groupedId(write.asked.id)}</span>}
                </button>
              </li>
            );
          })}
        </ol>
        <div className={styles.one}>
          <h3>{positionName[wheel]}</h3>
          {problem && <Notice tone="wrong">{problem}</Notice>}
          {last && <Outcome key={last.key} sheet={sheet} write={last} />}
          {parts && !closed && (again || programmed !== 'worked') && (
            <Plan key={`${wheel} ${last?.key ?? ''}`} sheet={sheet} wheel={wheel} parts={parts} />
          )}
          {!closed && !again && programmed === 'worked' && (
            <div className={styles.inline}>
              {next && (
                <Button weight="main" onClick={() => go(next)}>
                  Go on with {next}
                </Button>
              )}
              <Button onClick={() => setAgain(true)}>Another sensor for {wheel}</Button>
            </div>
          )}
          {view.devices.practice && !closed && (
            <PracticeBox key={`box ${last?.readBackAt ?? last?.key ?? ''}`} jobId={view.id} wheel={wheel} />
          )}
        </div>
      </div>
    </Dialog>
  );
}

const shortWords: Record<ReturnType<typeof programmingVerdict>, string> = {
  worked: 'programmed, read back',
  failed: 'read back wrong',
  unknown: 'not read back',
  refused: 'not programmed',
};

function useParts() {
  const [parts, setParts] = useState<Part[]>();
  const [problem, setProblem] = useState<string>();
  useEffect(() => {
    void ask('parts').then((asked) => (asked.ok ? setParts(asked.value) : setProblem(asked.problem.message)));
  }, []);
  return { parts, problem };
}

/** What the last one for this wheel is, as far as it is known, with its label. */
function Outcome({ sheet: { job, view, act, busy, problem }, write }: { sheet: Sheet; write: SensorWrite }) {
  const [typed, setTyped] = useState('');
  const verdict = programmingVerdict(write);
  return (
    <section className={styles.outcome}>
      <Notice tone={verdict === 'worked' ? 'right' : verdict === 'unknown' ? 'note' : 'wrong'}>
        {programmingWords(write)} {verdict === 'worked' && teachWords(write)}
      </Notice>
      {verdict === 'worked' && (
        <p className={styles.label}>
          <Tag aria-hidden="true" /> {plateOf(job)} {write.wheel}{' '}
          <b className="figures">{groupedId(write.asked.id)}</b>
          <span>{spellAloud(write.asked.id)}</span>
          <a href={`/jobs/${view.id}/labels`}>Print the labels</a>
        </p>
      )}
      {verdict === 'unknown' && (
        <>
          {problem && <Notice tone="wrong">{problem}</Notice>}
          {view.devices.tool && (
            <Button
              weight="main"
              busy={busy}
              onClick={() => void act('Reading the sensor…', 'readSensorBack', { write: write.key })}
            >
              Read it back
            </Button>
          )}
          <form
            className={styles.inline}
            onSubmit={(event) => {
              event.preventDefault();
              void act('Saving…', 'readSensorBack', { write: write.key, typed: typed.trim() });
            }}
          >
            <IdField
              label="ID as another tool reads it"
              value={typed}
              onValue={setTyped}
              digits={job.vehicle.tpms.idDigits}
              known={write.asked.id}
            />
            <Button type="submit" disabled={typed.trim() === ''} busy={busy}>
              It reads this
            </Button>
          </form>
        </>
      )}
    </section>
  );
}

interface PlanProps {
  sheet: Sheet;
  wheel: Position;
  parts: readonly Part[];
}

/** Which part, and which ID. */
function Plan({ sheet, wheel, parts }: PlanProps) {
  const { job, view, act, busy, problem } = sheet;
  const scan = ledgerOf(job).sensor[wheel];
  const fitting = partsFor(parts, job);
  const doubts = doubtsAbout(parts, job, scan?.kind === 'heard' ? scan.reply : undefined);
  const known = oldIdsAt(job, wheel);
  const [partName, setPartName] = useState(fitting.find(({ kind }) => kind === 'universal')?.name);
  const [mode, setMode] = useState<ProgrammingMode>(known.length > 0 ? 'clone' : 'new');
  const [old, setOld] = useState(known[0]?.id);
  const [typed, setTyped] = useState('');
  const part = fitting.find(({ name }) => name === partName);
  const id = mode === 'clone' && old !== undefined ? old : typed.trim();
  const given = mode === 'new' && typed.trim() === '' ? {} : { id };
  const ready = part?.kind === 'universal' && (mode === 'new' || id !== '');
  return (
    <section className={styles.plan}>
      {fitting.length === 0 && (
        <p>
          No part in the catalogue is heard by this car. <a href="/setup">Setup</a> takes a catalogue in; else
          go by the vehicle maker’s part number.
        </p>
      )}
      {fitting.length > 0 && (
        <Select
          label="Which part"
          value={partName ?? ''}
          options={[
            ...(partName === undefined ? [{ value: '', label: 'choose one' }] : []),
            ...fitting.map(({ name, title }) => ({ value: name, label: `${title} (${name})` })),
          ]}
          onValue={setPartName}
        />
      )}
      {part && <PartLine part={part} />}
      {doubts.map((doubt) => (
        <Notice key={doubt.kind} tone="note">
          {doubtWords(doubt)}
        </Notice>
      ))}
      {part?.kind === 'ready' ? (
        <p>This one has its own ID: nothing is programmed. Fit it, wake it, and teach the car.</p>
      ) : (
        <>
          <Choice label="With" options={optionsFrom(modeWords)} value={mode} onValue={setMode} />
          {mode === 'clone' && known.length > 0 && (
            <Choice
              label="Which is"
              options={[
                ...known.map(({ id: one, from }) => ({
                  value: one,
                  label: `${groupedId(one)}, ${oldIdWords[from]}`,
                })),
                { value: '', label: 'another: typed' },
              ]}
              value={old ?? ''}
              onValue={(one) => setOld(one === '' ? undefined : one)}
            />
          )}
          {(mode === 'typed' || (mode === 'clone' && old === undefined)) && (
            <IdField
              label="ID as printed, or as the old sensor was read"
              value={typed}
              onValue={setTyped}
              digits={job.vehicle.tpms.idDigits}
              known={known.find((one) => !sameId(one.id, typed))?.id}
            />
          )}
          {problem && <Notice tone="wrong">{problem}</Notice>}
          {view.devices.tool && fitting.length > 0 && (
            <>
              <p className={styles.soft}>It lies alone in the cradle, others half a metre away.</p>
              <Button
                weight="main"
                busy={busy}
                disabled={!ready}
                onClick={() =>
                  void act('Programming, then reading back…', 'programSensor', {
                    wheel,
                    mode,
                    part: part?.name ?? '',
                    ...given,
                  })
                }
              >
                Program {wheel}
              </Button>
            </>
          )}
          <OtherTool
            sheet={sheet}
            open={!view.devices.tool || fitting.length === 0}
            typed={typed}
            onTyped={setTyped}
            programmed={{ wheel, mode, ...(part && { part: part.name }), id }}
          />
        </>
      )}
    </section>
  );
}

/** It was programmed with a tool that is not connected here. */
function OtherTool({
  sheet: { job, act, busy },
  open,
  typed,
  onTyped,
  programmed,
}: {
  sheet: Sheet;
  open: boolean;
  typed: string;
  onTyped: (text: string) => void;
  programmed: { wheel: Position; mode: ProgrammingMode; part?: string; id: string };
}) {
  const [readBack, setReadBack] = useState('');
  return (
    <details className={styles.byHand} open={open}>
      <summary>Programmed with another tool</summary>
      <div className={styles.plan}>
        {programmed.mode === 'new' && (
          <IdField
            label="The new ID it was given"
            value={typed}
            onValue={onTyped}
            digits={job.vehicle.tpms.idDigits}
          />
        )}
        <IdField
          label="Read back as (empty: not read back yet)"
          value={readBack}
          onValue={setReadBack}
          digits={job.vehicle.tpms.idDigits}
          known={programmed.id}
        />
        <div>
          <Button
            busy={busy}
            disabled={programmed.id === ''}
            onClick={() =>
              void act('Saving…', 'noteProgrammed', {
                ...programmed,
                ...(readBack.trim() !== '' && { readBack: readBack.trim() }),
              })
            }
          >
            Note it
          </Button>
        </div>
      </div>
    </details>
  );
}

function PartLine({ part }: { part: Part }) {
  return (
    <p className={styles.soft}>
      {[stemWords[part.stem], ...torqueWords(part), part.kit && `service kit ${part.kit}`]
        .filter(Boolean)
        .join(', ')}
      .
    </p>
  );
}
