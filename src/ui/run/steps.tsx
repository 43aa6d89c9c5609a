import { useState, type ComponentType } from 'react';
import type { Step, StepOf } from '../../core/relearn/procedure';
import { phraseOf, stepWords } from '../../core/relearn/procedure/words';
import { openStep, phaseOf, presentWheel, stepClock } from '../../core/relearn/run';
import { groupedId } from '../../core/names/sensor-id';
import type { Position } from '../../core/names/wheel';
import { Button } from '../kit/Button';
import { Field } from '../kit/Field';
import { IdField } from '../parts/IdField';
import { BigClock } from './Clock';
import { Cues } from './Cues';
import styles from './Run.module.css';
import type { RunOnScreen } from './use-run';

/** What each kind of step asks of a hand, and what is told when that is done. To add a kind is to add one here. */
interface Asked<Kind extends Step['do']> {
  on: RunOnScreen;
  step: StepOf<Kind>;
}

/** The open step, large: what to do, its clock, and what to press here once it is done. */
export function OpenStep({ on }: { on: RunOnScreen }) {
  const { procedure, run } = on;
  const step = openStep(procedure, run);
  const phase = phaseOf(run);
  if (!step || !phase) return null;
  const Asks = asks[step.do] as ComponentType<Asked<Step['do']>>;
  const clock = stepClock(procedure, run);
  return (
    <div className={styles.open}>
      <h2 className={styles.instruction} aria-live="assertive">
        {stepWords(procedure, phase, step)}
      </h2>
      {clock && <BigClock clock={clock} />}
      {/* A step of the same kind that follows begins afresh. */}
      <div className={styles.does} key={`${phase} ${run.turn} ${run.step}`}>
        <Asks on={on} step={step} />
      </div>
      <Cues on={on} />
      <LeaveOut on={on} />
    </div>
  );
}

const asks: { [Kind in Step['do']]: ComponentType<Asked<Kind>> } = {
  set: ({ on, step: { what, to } }) => (
    <Main onClick={() => on.tell({ event: 'set', what, to })}>
      {phraseOf(what)} is {to}
    </Main>
  ),
  press: ({ on, step: { what, times } }) => {
    const { presses } = on.run.open;
    return (
      <Main onClick={() => on.tell({ event: 'press', what })}>
        Pressed{times > 1 && `: ${presses.length} of ${times}`}
      </Main>
    );
  },
  hold: ({ on, step: { what } }) =>
    on.run.open.heldSince === undefined ? (
      <Main onClick={() => on.tell({ event: 'press', what })}>Holding it now</Main>
    ) : (
      <Main onClick={() => on.tell({ event: 'release', what })}>Let go</Main>
    ),
  menu: ({ on, step: { path } }) => <Main onClick={() => on.tell({ event: 'chosen', path })}>Chosen</Main>,
  wait: () => <p className={styles.soft}>It goes on by itself.</p>,
  cue: () => <p className={styles.soft}>Press what you hear or see.</p>,
  drive: Drive,
  wake: Wake,
  air: ({ on }) => <AtWheel on={on} done="Air let out" />,
  magnet: ({ on }) => <AtWheel on={on} done="Magnet held" />,
  write: Write,
};

function Main({
  onClick,
  busy,
  children,
}: {
  onClick: () => void;
  busy?: string | undefined;
  children: React.ReactNode;
}) {
  return (
    <Button weight="main" className={styles.main} data-main busy={busy} onClick={onClick}>
      {children}
    </Button>
  );
}

function AtWheel({ on, done }: { on: RunOnScreen; done: string }) {
  const wheel = presentWheel(on.procedure, on.run);
  if (!wheel) return null;
  return (
    <Main onClick={() => on.tell({ event: 'taught', wheel })}>
      {done} at {wheel}
    </Main>
  );
}

function Drive({ on, step: { leastKmh, leastS } }: Asked<'drive'>) {
  const [minutes, setMinutes] = useState('');
  const { run, tell, tellOfPast, act, busy, view } = on;
  const fast = run.kmh >= leastKmh;
  const drivenS = Number(minutes.replace(',', '.')) * 60;
  const sinceS = run.clock - run.open.since;
  return (
    <>
      <p className={styles.soft}>
        A licensed driver drives; a passenger holds this. Nobody looks at a screen while driving.
      </p>
      {fast ? (
        <Main onClick={() => tell({ event: 'speed', kmh: 0 })}>Slower than {leastKmh} km/h, or standing</Main>
      ) : (
        <Main onClick={() => tell({ event: 'speed', kmh: leastKmh })}>{leastKmh} km/h or faster now</Main>
      )}
      {view.devices.lead && (
        <Button busy={busy} onClick={() => void act('Reading the speed…', 'readInRun', { what: 'speed' })}>
          Read the speed from the car
        </Button>
      )}
      <form
        className={styles.inline}
        onSubmit={(event) => {
          event.preventDefault();
          tellOfPast([
            { agoS: drivenS, happening: { event: 'speed', kmh: leastKmh } },
            { agoS: 0, happening: { event: 'speed', kmh: 0 } },
          ]);
        }}
      >
        <Field
          label={`Alone at the wheel? Minutes driven at ${leastKmh} km/h or faster, since this step began`}
          inputMode="decimal"
          value={minutes}
          onValue={setMinutes}
          error={
            drivenS > sinceS
              ? `This step began ${Math.floor(sinceS / 60)} min ago: it cannot be more.`
              : undefined
          }
          hint={`Asked for: ${Math.ceil(leastS / 60)} min`}
        />
        <Button type="submit" disabled={!(drivenS > 0) || drivenS > sinceS}>
          Driven
        </Button>
      </form>
    </>
  );
}

function Wake({ on }: Asked<'wake'>) {
  const { procedure, run, view, busy, act, tell } = on;
  const wheel = presentWheel(procedure, run);
  const [id, setId] = useState('');
  const [trigger, setTrigger] = useState<'pulsed' | 'continuous'>('pulsed');
  if (!wheel) return null;
  const heard = (ids: string[]) => {
    tell({ event: 'heard', wheel, ids });
    setId('');
  };
  const silent = run.notes.includes('silent');
  return (
    <>
      {view.devices.tool && (
        <>
          <Main busy={busy} onClick={() => void act(`Waking ${wheel}…`, 'wakeInRun', { wheel, trigger })}>
            Wake {wheel}
          </Main>
          {silent && trigger === 'pulsed' && (
            <Button onClick={() => setTrigger('continuous')}>Try the continuous trigger</Button>
          )}
        </>
      )}
      <form
        className={styles.inline}
        onSubmit={(event) => {
          event.preventDefault();
          if (id.trim()) heard([id.trim()]);
        }}
      >
        <IdField
          label={view.devices.tool ? 'Or type the ID another tool shows' : `ID the tool shows at ${wheel}`}
          value={id}
          onValue={setId}
          digits={view.idDigits}
          known={run.expected[wheel]}
        />
        <Button type="submit" disabled={id.trim() === ''} {...(!view.devices.tool && { 'data-main': true })}>
          Heard {id.trim() === '' ? 'it' : groupedId(id)}
        </Button>
        <Button onClick={() => heard([])}>Nothing answered</Button>
      </form>
    </>
  );
}

function Write({ on }: Asked<'write'>) {
  const { view, busy, act, tell, run, procedure } = on;
  const wheels = Object.keys({ ...run.expected, ...run.heard }) as Position[];
  const ids = procedure.wheels.length > 0 ? procedure.wheels : wheels;
  return (
    <>
      <dl className={styles.ids}>
        {ids
          .filter((wheel) => !run.skipped.includes(wheel))
          .map((wheel) => {
            const id = run.heard[wheel] ?? run.expected[wheel];
            return (
              <div key={wheel}>
                <dt>{wheel}</dt>
                <dd className="figures">{id ? groupedId(id) : 'not known: stays as it is'}</dd>
              </div>
            );
          })}
      </dl>
      {view.devices.lead ? (
        <Main busy={busy} onClick={() => void act('Sending, then reading back…', 'writeInRun', {})}>
          Register the IDs
        </Main>
      ) : (
        <div className={styles.actions}>
          <p>Send them with your tool. What did the car say?</p>
          <Button onClick={() => tell({ event: 'answer', answer: 'yes' })}>It took them</Button>
          <Button onClick={() => tell({ event: 'answer', answer: 'no' })}>It refused</Button>
          <Button onClick={() => tell({ event: 'answer', answer: 'lost' })}>No answer came</Button>
        </div>
      )}
    </>
  );
}

/** A wheel that may be skipped is skipped on purpose. */
function LeaveOut({ on: { procedure, run, tell } }: { on: RunOnScreen }) {
  const wheel = presentWheel(procedure, run);
  if (!wheel || !procedure.optional.includes(wheel)) return null;
  return (
    <Button weight="quiet" onClick={() => tell({ event: 'skip', wheel })}>
      Leave {wheel} out on purpose
    </Button>
  );
}
