import { ArrowLeft, Volume2, VolumeX } from 'lucide-react';
import { useRef, useState } from 'react';
import type { RunView } from '../../contract';
import { phases } from '../../core/relearn/procedure';
import { phaseWords } from '../../core/relearn/procedure/words';
import { hasEnded, phaseOf, presentWheel } from '../../core/relearn/run';
import { noteWords, stateWords } from '../../core/relearn/run/words';
import type { Notation } from '../../core/measure/units';
import type { Person } from '../../core/visit/person';
import { positionName } from '../../core/names/wheel';
import { Button } from '../kit/Button';
import { Dialog } from '../kit/Dialog';
import { Notice } from '../kit/Notice';
import { Before } from './Before';
import { Legend } from './Cues';
import { Ended } from './Ended';
import { OtherCueDialog } from './OtherCueDialog';
import { PracticeCar } from './PracticeCar';
import { Prove } from './Prove';
import styles from './Run.module.css';
import { OpenStep } from './steps';
import { TakeBack } from './TakeBack';
import { useAloud, type Aloud } from './use-aloud';
import { useRun, type RunOnScreen } from './use-run';
import { useRunKeys } from './use-run-keys';
import { useScreenKeptOn } from './use-screen-kept-on';
import { Where } from './Where';

/** A relearn, full screen: one step large, what the car can say, and the wheel to go to. */
export function Run({
  initial,
  units,
  person,
}: {
  initial: RunView;
  units: Notation;
  /** Who is signed in. */
  person: Pick<Person, 'id' | 'name'>;
}) {
  const on = useRun(initial, person);
  const { view, run, procedure, events } = on;
  const main = useRef<HTMLElement>(null);
  const [flagging, setFlagging] = useState(false);
  const ended = hasEnded(run);
  const aloud = useAloud(on);
  useScreenKeptOn(!ended);
  useRunKeys(main);
  return (
    <main ref={main} className={styles.run} data-state={run.state}>
      <Head on={on} aloud={aloud} person={person} />
      <Where procedure={procedure} run={run} />
      <section className={styles.step} aria-label="What to do now">
        <Progress on={on} />
        <LastNotes on={on} />
        {run.state === 'before' && <Before on={on} units={units} />}
        {phaseOf(run) && <OpenStep on={on} />}
        {run.state === 'prove' && <Prove on={on} units={units} />}
        {ended ? <Ended on={on} /> : <TakeBack on={on} />}
        <Button weight="quiet" className={styles.other} onClick={() => setFlagging(true)}>
          Another cue, or the car does something else
        </Button>
        {flagging && <OtherCueDialog on={on} onClose={() => setFlagging(false)} />}
        <Connection on={on} />
      </section>
      <aside className={styles.side}>
        <Legend procedure={procedure} run={run} />
        {view.devices.practice && !ended && <PracticeCar runKey={view.key} aloud={aloud} />}
        <p className={styles.soft}>
          Begun by {view.by}, {events.length} {events.length === 1 ? 'event' : 'events'} so far.
        </p>
      </aside>
    </main>
  );
}

function Head({
  on: { view, run, tell },
  aloud,
  person,
}: {
  on: RunOnScreen;
  aloud: Aloud;
  person: Pick<Person, 'name'>;
}) {
  const [stopping, setStopping] = useState(false);
  const { vehicle, jobNumber, jobId, procedure } = view;
  return (
    <header className={styles.head}>
      <a className={styles.back} href={`/jobs/${jobId}`}>
        <ArrowLeft aria-hidden="true" /> Job {jobNumber}
      </a>
      <div className={styles.car}>
        <h1>
          {procedure.title} {vehicle.plate && <span className={styles.plate}>{vehicle.plate}</span>}
        </h1>
        <p>
          {vehicle.label}. {procedure.checkedAt ? '' : 'Nobody has checked this procedure on a car.'}
        </p>
      </div>
      <Button weight="quiet" aria-pressed={aloud.on} onClick={aloud.toggle}>
        {aloud.on ? <Volume2 aria-hidden="true" /> : <VolumeX aria-hidden="true" />}
        <span className={styles.onlyWide}>{aloud.on ? 'Sound on' : 'Sound off'}</span>
      </Button>
      {!hasEnded(run) && <Button onClick={() => setStopping(true)}>Stop</Button>}
      {stopping && (
        <Dialog title="Stop this relearn?" onClose={() => setStopping(false)}>
          {view.by !== person.name && (
            <p>
              <b>{view.by} began it</b> and may stand at a wheel: ask first.
            </p>
          )}
          <p>
            What was done so far stays on record. The car may be left half taught: read it, or start again.
          </p>
          <div className={styles.actions}>
            <Button
              weight="main"
              onClick={() => {
                tell({ event: 'stop' });
                setStopping(false);
              }}
            >
              {view.by === person.name ? 'Stop it' : `Stop ${view.by}’s relearn`}
            </Button>
            <Button onClick={() => setStopping(false)}>Go on</Button>
          </div>
        </Dialog>
      )}
    </header>
  );
}

/** Where in the whole: the phases as a line, and the wheel. */
function Progress({ on: { procedure, run } }: { on: RunOnScreen }) {
  const phase = phaseOf(run);
  const wheel = presentWheel(procedure, run);
  const steps = phase ? procedure[phase].length : 0;
  const line = [
    'before',
    ...phases.filter((one) => procedure[one].length > 0 && (one !== 'each' || procedure.wheels.length > 0)),
    'prove',
  ] as const;
  if (hasEnded(run)) return null;
  return (
    <>
      <ol className={styles.phases}>
        {line.map((one) => (
          <li key={one} aria-current={one === run.state ? 'step' : undefined}>
            {one === 'before' || one === 'prove' ? stateWords[one] : phaseWords[one]}
          </li>
        ))}
      </ol>
      {phase && (
        <p className={styles.place}>
          {wheel && (
            <b>
              {wheel}, {positionName[wheel]}: wheel {run.turn + 1} of {procedure.wheels.length}.{' '}
            </b>
          )}
          Step {run.step + 1} of {steps}
        </p>
      )}
    </>
  );
}

/** What went otherwise with the last thing that was told, what it means, and what to do. */
function LastNotes({ on: { run, problem } }: { on: RunOnScreen }) {
  return (
    <>
      {problem && <Notice tone="wrong">{problem.message}</Notice>}
      {[...new Set(run.notes)]
        .filter((note) => note !== 'ended')
        .map((note) => (
          <Notice key={note} tone="note">
            <b>{noteWords[note].means}</b> {noteWords[note].next}
          </Notice>
        ))}
    </>
  );
}

function Connection({ on: { connected, unsent, view, problem } }: { on: RunOnScreen }) {
  if (problem?.code === 'not-signed-in')
    return (
      <p role="alert">
        <a href={`/sign-in?next=/runs/${view.key}`}>Sign in</a> to go on; what you told is kept here.
      </p>
    );
  if (connected && unsent === 0) return null;
  return (
    <p role="status" className={styles.soft}>
      {connected ? '' : 'No connection. '}
      {unsent > 0
        ? `${unsent} saved on this device, not sent yet.`
        : 'What you tell is kept here; the clocks go on.'}
    </p>
  );
}
