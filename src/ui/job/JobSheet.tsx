import { ArrowLeft, Check, FileDown, Keyboard } from 'lucide-react';
import { lazy, Suspense, useEffect, useState, type ComponentType } from 'react';
import { findingsHeld, type Assessment, type Finding } from '../../core/assessment';
import type { School } from '../../core/filling';
import type { CarWrite } from '../../core/job';
import { serviceWords } from '../../core/job/words';
import { columnsOf } from '../../core/ledger/column';
import { writeVerdict } from '../../core/proof';
import { distance, format, type UnitChoice } from '../../core/units';
import { isPassed, stationOf, stations, type CheckedByHand, type Move, type Station } from '../../core/visit';
import type { Person } from '../../core/visit/person';
import { notesOf, plateOf } from '../../core/visit/notes';
import type { VisitView } from '../../core/visit/view';
import { walkingOrder, type Position } from '../../core/wheel';
import { Button } from '../kit/Button';
import { Dialog } from '../kit/Dialog';
import { cellsThatSpeak } from './evidence-cells';
import { keyOf } from './Findings';
import { Follows } from './Follows';
import { GaugeDialog } from './GaugeDialog';
import styles from './JobSheet.module.css';
import { KeysDialog } from './KeysDialog';
import { LampDialog } from './LampDialog';
import { Ledger } from './Ledger';
import { moveWords, stationNames } from './moves';
import { ProveDialog } from './ProveDialog';
import { ScanDialog } from './ScanDialog';
import { useVerdict } from './use-verdict';
import { useVisit } from './use-visit';

/** Dialogs are fetched while the first look at the sheet is taken: it shows without them. */
const loaders: (() => Promise<unknown>)[] = [];
const fetchAfterMs = 1500;
function later<Props>(load: () => Promise<ComponentType<Props>>) {
  loaders.push(load);
  return lazy(() => load().then((found) => ({ default: found })));
}
const PlacardDialog = later(() => import('./PlacardDialog').then((found) => found.PlacardDialog));
const WeatherDialog = later(() => import('./WeatherDialog').then((found) => found.WeatherDialog));
const ActDialog = later(() => import('./ActDialog').then((found) => found.ActDialog));
const HandOverDialog = later(() => import('./HandOverDialog').then((found) => found.HandOverDialog));
const TurnedOutDialog = later(() => import('./HandOverDialog').then((found) => found.TurnedOutDialog));
const WriteRun = later(() => import('./WriteRun').then((found) => found.WriteRun));
const TonightDialog = later(() => import('./TonightDialog').then((found) => found.TonightDialog));
const LossesDialog = later(() => import('./LossesDialog').then((found) => found.LossesDialog));
const LookDialog = later(() => import('./LookDialog').then((found) => found.LookDialog));
const CheckDialog = later(() => import('./CheckDialog').then((found) => found.CheckDialog));
const ChecksDialog = later(() => import('./CheckDialog').then((found) => found.ChecksDialog));
const CodesDialog = later(() => import('./CodesDialog').then((found) => found.CodesDialog));
const WhatIfDialog = later(() => import('./WhatIfDialog').then((found) => found.WhatIfDialog));
const TiresDialog = later(() => import('./TiresDialog').then((found) => found.TiresDialog));

type Open =
  | { kind: 'gauge' | 'scan'; wheel: Position }
  | { kind: 'losses'; wheel?: Position }
  | { kind: 'act'; finding: Finding }
  | { kind: 'look'; wheel: Position }
  | { kind: 'check'; test: CheckedByHand }
  | {
      kind:
        | 'placard'
        | 'weather'
        | 'tonight'
        | 'tires'
        | 'lamp'
        | 'prove'
        | 'hand-over'
        | 'turned-out'
        | 'keys'
        | 'no-lead'
        | 'what-if'
        | 'checks'
        | 'codes';
    }
  /** `write`: the key of a write that is looked at; none while a new one is prepared. */
  | { kind: 'write'; write?: string };

/** After a silent try another trigger: what the next one is. */
const triggers = ['pulsed', 'continuous', 'magnet'] as const;

/** How long a wait is called by its name alone, s; after that the seconds are counted beside it. */
const countAfterS = 3;

interface JobSheetProps {
  initial: VisitView;
  /** What follows from it, so that the verdict is there with the page. */
  assessment: Assessment;
  units: UnitChoice;
  role: Person['role'];
}

export function JobSheet({ initial, assessment: first, units, role }: JobSheetProps) {
  const visit = useVisit(initial);
  const { view, facts, act, record } = visit;
  const { job, judged: shown, proof, move, check } = useVerdict(initial, first, view, facts);
  const { job: judged, assessment } = shown;
  const [open, setOpen] = useState<Open>();
  const [chosen, setChosen] = useState<Position>();
  const base = `/api/jobs/${view.id}`;
  const closed = view.state === 'handed-over';
  const mayConfirm = role !== 'adviser';
  const held = findingsHeld(assessment);
  const [shownFinding, setShownFinding] = useState<string>();
  const speaks = cellsThatSpeak(
    judged,
    held.find((finding) => keyOf(finding) === shownFinding),
  );
  const columns = columnsOf(job, assessment);
  const words = moveWords(move, units);
  const busy =
    visit.busy &&
    (visit.busy.seconds >= countAfterS ? `${visit.busy.what} ${visit.busy.seconds} s` : visit.busy.what);
  const problem = visit.problem?.message;
  const lastWrite = registryWrites(job.carWrites).at(-1);
  const shownWrite =
    open?.kind === 'write' ? registryWrites(job.carWrites).find(({ key }) => key === open.write) : undefined;

  const close = () => {
    setOpen(undefined);
    visit.dismissProblem();
  };
  const wake = (wheel: Position, trigger: string) =>
    act(`Waking ${wheel}…`, `${base}/wake`, { wheel, trigger });
  const readCar = () => act('Reading the car…', `${base}/read-car`);
  const edit = (changes: Record<string, unknown>) =>
    act('Keeping…', base, { version: view.version, changes }, 'PATCH').then((done) => done && close());

  const repaired = (wheel: Position) =>
    void edit({ repairs: [...(job.repairs ?? []), { wheel, at: new Date().toISOString() }] });
  const setSchool = (fillPolicy: School) =>
    act(
      'Keeping…',
      base,
      { version: view.version, changes: { climate: { ...job.climate, fillPolicy } } },
      'PATCH',
    );

  async function send(entries: { wheel: Position; id: string | null }[]) {
    const before = new Set(registryWrites(view.job.carWrites).map(({ key }) => key));
    setSending(before);
    await act('Sending, do not unplug…', `${base}/write-ids`, { entries });
  }
  /** The writes there were before the one that is being sent: the new one is the one not among them. */
  const [sending, setSending] = useState<ReadonlySet<string>>();
  const newWrite = sending && registryWrites(job.carWrites).find(({ key }) => !sending.has(key));
  const runWrite = newWrite ?? shownWrite;

  function take(move: Move) {
    switch (move.kind) {
      case 'placard':
        return setOpen({ kind: 'placard' });
      case 'gauge':
      case 'fill':
        return setOpen({ kind: 'gauge', wheel: move.wheel });
      case 'wake':
        return void wake(move.wheel, triggers[move.tries] ?? 'magnet');
      case 'read-car':
      case 'support-supply':
        return void readCar();
      case 'write-ids':
        setSending(undefined);
        return setOpen({ kind: 'write' });
      case 'read-back': {
        const unknown = (job.carWrites ?? []).findLast((write) => writeVerdict(write) === 'unknown');
        if (unknown?.kind === 'clear-codes')
          return void act('Reading back…', `${base}/read-back`, { write: unknown.key });
        return unknown && setOpen({ kind: 'write', write: unknown.key });
      }
      case 'clear-codes':
        return void act('Clearing the codes…', `${base}/clear-codes`);
      case 'drive':
        return void (view.devices.practice
          ? act('Driving…', `/api/practice/${view.id}`, { do: 'drive' })
          : readCar());
      case 'look-at-lamp':
        return setOpen({ kind: 'lamp' });
      case 'look':
        return setOpen({ kind: 'look', wheel: move.wheel });
      case 'check':
        return setOpen({ kind: 'check', test: move.test });
      case 'act':
        return setOpen({ kind: 'act', finding: move.finding });
      case 'hand-over':
        return setOpen({ kind: 'hand-over' });
      case 'done':
        return window.location.assign(`/jobs/${view.id}/sheet`);
    }
  }

  function visitStation(station: Station) {
    const firstUngauged = columns.find(({ gauge }) => !gauge)?.wheel ?? chosen ?? 'LF';
    const firstUnheard =
      columns.find(({ sensor }) => sensor && sensor.kind !== 'heard')?.wheel ?? chosen ?? 'LF';
    switch (station) {
      case 'placard':
        return setOpen({ kind: 'placard' });
      case 'gauge':
        return setOpen({ kind: 'gauge', wheel: firstUngauged });
      case 'scan':
        return setOpen({ kind: 'scan', wheel: firstUnheard });
      case 'car':
        return view.devices.lead ? void readCar() : setOpen({ kind: 'no-lead' });
      case 'follows':
        return document.getElementById('follows')?.focus();
      case 'write':
        setSending(undefined);
        return setOpen({
          kind: 'write',
          ...(lastWrite && writeVerdict(lastWrite) !== 'worked' && { write: lastWrite.key }),
        });
      case 'prove':
        return setOpen({ kind: 'prove' });
      case 'hand-over':
        return setOpen({ kind: 'hand-over' });
    }
  }

  useEffect(() => {
    // A lost connection later on must not find a dialog missing; the sheet itself comes first.
    const timer = setTimeout(
      () => loaders.forEach((load) => void load().catch(() => undefined)),
      fetchAfterMs,
    );
    return () => clearTimeout(timer);
  }, []);

  useKeys(open === undefined && !closed, (key) => {
    const wheel = walkingOrder[Number(key) - 1];
    if (wheel && columns.some((column) => column.wheel === wheel)) return setChosen(wheel);
    switch (key) {
      case 'Enter':
        return take(move);
      case 'g':
        return setOpen({ kind: 'gauge', wheel: chosen ?? 'LF' });
      case 'w':
        return setOpen({ kind: 'scan', wheel: chosen ?? 'LF' });
      case 'l':
        return setOpen({ kind: 'lamp' });
      case 'p':
        return setOpen({ kind: 'placard' });
      case 'v':
        return setOpen({ kind: 'prove' });
      case 'e':
        return setOpen({ kind: 'look', wheel: chosen ?? 'LF' });
      case 'i':
        return setOpen({ kind: 'what-if' });
      case '?':
        return setOpen({ kind: 'keys' });
    }
  });

  const notes = notesOf(job);
  const refused = visit.waiting.filter((item) => item.refused !== undefined);
  const unsent = visit.waiting.length - refused.length;
  const passed = (station: Station) => isPassed(station, job, proof);

  return (
    <main className={styles.sheet}>
      <div className={styles.head}>
        <a className={styles.back} href="/">
          <ArrowLeft aria-hidden="true" /> Yard
        </a>
        <div className={styles.car}>
          <h1>
            {job.vehicle.label} {plateOf(job) && <span className={styles.plate}>{plateOf(job)}</span>}
          </h1>
          <p>
            Job {view.number}
            {job.vehicle.odometerKm !== undefined &&
              `, ${format(distance, job.vehicle.odometerKm, units.distance)}`}
            {job.service && `, ${serviceWords[job.service.kind]}`}
            {notes.complaint && `. “${notes.complaint}”`}
          </p>
        </div>
        <a className={styles.link} href={`${base}/file`} download>
          <FileDown aria-hidden="true" /> Job file
        </a>
        <a className={styles.link} href={`/jobs/${view.id}/sheet`}>
          Sheet
        </a>
        <Button weight="quiet" aria-label="Keys" onClick={() => setOpen({ kind: 'keys' })}>
          <Keyboard aria-hidden="true" />
        </Button>
      </div>
      <nav className={styles.stations} aria-label="Stations of the visit">
        {stations.map((station) => (
          <button
            key={station}
            type="button"
            ref={station === stationOf(move) ? intoView : undefined}
            aria-current={station === stationOf(move) ? 'step' : undefined}
            onClick={() => visitStation(station)}
            disabled={closed}
          >
            {passed(station) && <Check aria-label="passed" />}
            {stationNames[station]}
          </button>
        ))}
      </nav>
      <fieldset className={styles.ledger} aria-label="Ledger" disabled={closed}>
        <Ledger
          columns={columns}
          findings={held}
          speaks={speaks}
          units={units}
          chosen={chosen}
          onGauge={(wheel) => setOpen({ kind: 'gauge', wheel })}
          onPlacard={() => setOpen({ kind: 'placard' })}
          onScan={(wheel) => setOpen({ kind: 'scan', wheel })}
        />
      </fieldset>
      <aside className={styles.side}>
        <Follows
          job={job}
          judged={judged}
          assessment={assessment}
          units={units}
          check={check}
          onChecks={() => setOpen({ kind: 'checks' })}
          shown={shownFinding}
          onShow={setShownFinding}
          onWhatIf={() => setOpen({ kind: 'what-if' })}
          closed={closed}
          onLamp={() => setOpen({ kind: 'lamp' })}
          onWeather={() => setOpen({ kind: 'weather' })}
          onTonight={() => setOpen({ kind: 'tonight' })}
          onLosses={() => setOpen({ kind: 'losses' })}
          onTires={() => setOpen({ kind: 'tires' })}
        />
        {closed && mayConfirm && <Button onClick={() => setOpen({ kind: 'turned-out' })}>What it was</Button>}
        {lastWrite && (
          <Button onClick={() => setOpen({ kind: 'write', write: lastWrite.key })}>
            Last write: {writeVerdict(lastWrite)}
          </Button>
        )}
      </aside>
      <div className={styles.foot} role="group" aria-label="Next move">
        <div className={styles.why}>
          {visit.problem?.code === 'not-signed-in' ? (
            <span role="alert">
              {problem} <a href={`/sign-in?next=/jobs/${view.id}`}>Sign in</a>
            </span>
          ) : !visit.connected || unsent > 0 ? (
            <span role="status">
              {visit.connected ? '' : 'No connection. '}
              {unsent > 0 ? `${unsent} kept on this device, on the way.` : 'What you enter is kept here.'}
            </span>
          ) : refused[0] ? (
            <span role="alert">
              Not stored: {refused[0].refused}{' '}
              <Button weight="quiet" onClick={() => visit.dismissRefused(refused[0]?.key ?? '')}>
                Drop it
              </Button>
            </span>
          ) : problem && !open ? (
            <span role="alert">{problem}</span>
          ) : (
            <>
              <b>Next</b>
              {words.why}
            </>
          )}
        </div>
        <Button
          weight="main"
          className={styles.move}
          busy={open ? undefined : busy}
          onClick={() => take(move)}
        >
          {words.label}
        </Button>
      </div>

      <Suspense fallback={null}>
        {open?.kind === 'gauge' && (
          <GaugeDialog
            jobId={view.id}
            job={job}
            columns={columns}
            first={open.wheel}
            units={units}
            gauges={view.gauges}
            practice={view.devices.practice}
            onRecord={record}
            onLosses={(wheel) => setOpen({ kind: 'losses', wheel })}
            onClose={close}
          />
        )}
        {open?.kind === 'scan' && (
          <ScanStation
            {...{ columns, busy, problem, close }}
            wheel={open.wheel}
            hasTool={view.devices.tool}
            wake={wake}
          />
        )}
        {open?.kind === 'placard' && (
          <PlacardDialog
            job={job}
            units={units}
            busy={busy}
            problem={problem}
            onClose={close}
            onSave={(placard, loadCase) => void edit({ placard, loadCase })}
          />
        )}
        {open?.kind === 'weather' && (
          <WeatherDialog
            climate={job.climate ?? {}}
            units={units}
            busy={busy}
            problem={problem}
            onClose={close}
            onSave={(climate) => void edit({ climate })}
          />
        )}
        {open?.kind === 'tonight' && (
          <TonightDialog
            jobId={view.id}
            job={job}
            units={units}
            practice={view.devices.practice && !closed}
            onSchool={(fillPolicy) => void setSchool(fillPolicy)}
            onWeather={() => setOpen({ kind: 'weather' })}
            onClose={close}
          />
        )}
        {open?.kind === 'losses' && (
          <LossesDialog
            job={job}
            first={open.wheel}
            units={units}
            onRepaired={closed ? undefined : repaired}
            onClose={close}
          />
        )}
        {open?.kind === 'tires' && (
          <TiresDialog
            job={job}
            units={units}
            busy={busy}
            problem={problem}
            onSave={(fitted) => void edit({ fitted })}
            onClose={close}
          />
        )}
        {open?.kind === 'look' && (
          <LookDialog first={open.wheel} columns={columns} onRecord={record} onClose={close} />
        )}
        {open?.kind === 'checks' && (
          <ChecksDialog
            kind={job.vehicle.tpms.kind}
            onLook={() => setOpen({ kind: 'look', wheel: chosen ?? 'LF' })}
            onCheck={(test) => setOpen({ kind: 'check', test })}
            onCodes={() => setOpen({ kind: 'codes' })}
            onClose={close}
          />
        )}
        {open?.kind === 'codes' && (
          <CodesDialog job={job} codes={view.codes} onRecord={record} onClose={close} />
        )}
        {open?.kind === 'check' && (
          <CheckDialog test={open.test} job={job} units={units} onRecord={record} onClose={close} />
        )}
        {open?.kind === 'what-if' && (
          <WhatIfDialog
            job={judged}
            assessment={assessment}
            experience={view.experience}
            units={units}
            onClose={close}
          />
        )}
        {open?.kind === 'lamp' && (
          <LampDialog jobId={view.id} practice={view.devices.practice} onRecord={record} onClose={close} />
        )}
        {(open?.kind === 'no-lead' || (open?.kind === 'write' && !view.devices.lead)) && (
          <Dialog title="No lead to this car" onClose={close}>
            <p>
              Nothing can be read or written from here: no lead is set up, or the profile of this vehicle does
              not say how to talk to its receiver. Follow the vehicle maker's own procedure, then record the
              lamp.
            </p>
          </Dialog>
        )}
        {open?.kind === 'write' && view.devices.lead && (
          <WriteRun
            job={job}
            write={runWrite}
            busy={busy}
            problem={problem}
            onSend={(entries) => void send(entries)}
            onReadBack={(write) => void act('Reading back…', `${base}/read-back`, { write })}
            onClose={close}
          />
        )}
        {open?.kind === 'act' && (
          <ActDialog
            finding={open.finding}
            job={judged}
            units={units}
            onGauge={(wheel) => setOpen({ kind: 'gauge', wheel })}
            onScan={(wheel) => setOpen({ kind: 'scan', wheel })}
            onLamp={() => setOpen({ kind: 'lamp' })}
            onStored={() => {
              record({ kind: 'relearn', at: new Date().toISOString(), method: 'reset', outcome: 'done' });
              close();
            }}
            onHandOver={() => setOpen({ kind: 'hand-over' })}
            onRepaired={repaired}
            onLosses={(wheel) => setOpen({ kind: 'losses', wheel })}
            onClose={close}
          />
        )}
        {open?.kind === 'prove' && (
          <ProveDialog
            proof={proof}
            hasLead={view.devices.lead}
            practice={view.devices.practice}
            busy={busy}
            problem={problem}
            onClear={() => void act('Clearing the codes…', `${base}/clear-codes`)}
            onRead={() => void readCar()}
            onDrive={() => void act('Driving…', `/api/practice/${view.id}`, { do: 'drive' })}
            onLamp={() => setOpen({ kind: 'lamp' })}
            onClose={close}
          />
        )}
        {open?.kind === 'hand-over' && (
          <HandOverDialog
            job={job}
            experience={view.experience}
            mayConfirm={mayConfirm}
            proof={proof}
            busy={busy}
            problem={problem}
            sheet={`/jobs/${view.id}/sheet`}
            onHandOver={(unproved, parts) =>
              void act('Handing over…', `${base}/hand-over`, {
                version: view.version,
                ...(unproved && { unproved }),
                ...(parts.length > 0 && { parts }),
              }).then((done) => done && window.location.assign(`/jobs/${view.id}/sheet`))
            }
            onClose={close}
          />
        )}
        {open?.kind === 'turned-out' && (
          <TurnedOutDialog
            {...{ job, busy, problem }}
            experience={view.experience}
            onConfirm={(parts) =>
              void act('Keeping…', `${base}/confirm`, { parts }).then((done) => done && close())
            }
            onClose={close}
          />
        )}
        {open?.kind === 'keys' && <KeysDialog onClose={close} />}
      </Suspense>
    </main>
  );
}

function ScanStation(props: {
  columns: ReturnType<typeof columnsOf>;
  wheel: Position;
  busy: string | undefined;
  problem: string | undefined;
  hasTool: boolean;
  wake: (wheel: Position, trigger: string) => Promise<boolean>;
  close: () => void;
}) {
  const column =
    props.columns.find(({ wheel, sensor }) => wheel === props.wheel && sensor) ??
    props.columns.find(({ sensor }) => sensor);
  if (!column) {
    return (
      <Dialog title="No sensors to wake" onClose={props.close}>
        <p>This car compares wheel speeds; its wheels have no sensors.</p>
      </Dialog>
    );
  }
  return (
    <ScanDialog
      column={column}
      busy={props.busy}
      problem={props.problem}
      hasTool={props.hasTool}
      onWake={(wheel, trigger) => void props.wake(wheel, trigger).then((done) => done && props.close())}
      onClose={props.close}
    />
  );
}

/** On a phone the strip of stations is wider than the screen: the present one is brought into sight. */
const intoView = (station: HTMLButtonElement | null) =>
  void station?.parentElement?.scrollTo({ left: station.offsetLeft - station.parentElement.clientWidth / 3 });

const registryWrites = (writes: readonly CarWrite[] | undefined) =>
  (writes ?? []).flatMap((write) => (write.kind === 'registry' ? [write] : []));

/** Single keys, as long as nobody types into a field and no dialog is open. */
function useKeys(active: boolean, onKey: (key: string) => void) {
  useEffect(() => {
    if (!active) return undefined;
    const listen = (event: KeyboardEvent) => {
      const { target } = event;
      if (event.ctrlKey || event.metaKey || event.altKey) return;
      if (target instanceof HTMLElement && target.closest('input, textarea, select')) return;
      // A focused button or link takes Enter itself.
      if (event.key === 'Enter' && target instanceof HTMLElement && target.closest('button, a')) return;
      // The key itself must not be typed into the field that opens.
      if (event.key === 'Enter' || /^[a-z0-9?]$/i.test(event.key)) event.preventDefault();
      onKey(event.key.length === 1 ? event.key.toLowerCase() : event.key);
    };
    window.addEventListener('keydown', listen);
    return () => window.removeEventListener('keydown', listen);
  });
}
