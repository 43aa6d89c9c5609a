import { useState, type ComponentType, type ReactNode } from 'react';
import { aimingAt } from '../../core/job/placard';
import { ledgerOf } from '../../core/job/ledger';
import type { Finding } from '../../core/judgement/assessment';
import type { Position } from '../../core/names/wheel';
import type { FormCheck } from './checks/CheckDialog';
import type { CarPart } from './car/CarDialog';
import { part } from '../kit/Later';
import type { Sheet } from './use-sheet';

/**
 * The dialogs of the job sheet: each a function of the sheet and of what it was opened with. To add one is to add
 * one here; `open({ dialog: 'name', … })` opens it.
 */

/** Dialogs are fetched while the first look at the sheet is taken: it shows without them. */
const loaders: (() => Promise<unknown>)[] = [];
function later<Props>(load: () => Promise<ComponentType<Props>>) {
  loaders.push(load);
  return part(load);
}

/** A lost connection later on must not find a dialog missing. */
export const fetchDialogs = (): void => loaders.forEach((load) => void load().catch(() => undefined));

const KeysDialog = later(() => import('./KeysDialog').then((found) => found.KeysDialog));
const LampDialog = later(() => import('./checks/LampDialog').then((found) => found.LampDialog));
const NotHere = later(() => import('./NotHere').then((found) => found.NotHere));
const GaugeDialog = later(() => import('./gauge/GaugeDialog').then((found) => found.GaugeDialog));
const ProveDialog = later(() => import('./prove/ProveDialog').then((found) => found.ProveDialog));
const PlacardDialog = later(() => import('./placard/PlacardDialog').then((found) => found.PlacardDialog));
const TiresDialog = later(() => import('./placard/TiresDialog').then((found) => found.TiresDialog));
const WeatherDialog = later(() => import('./gauge/WeatherDialog').then((found) => found.WeatherDialog));
const TonightDialog = later(() => import('./gauge/TonightDialog').then((found) => found.TonightDialog));
const LossesDialog = later(() => import('./gauge/LossesDialog').then((found) => found.LossesDialog));
const ActDialog = later(() => import('./follows/ActDialog').then((found) => found.ActDialog));
const WhatIfDialog = later(() => import('./follows/WhatIfDialog').then((found) => found.WhatIfDialog));
const LookDialog = later(() => import('./checks/LookDialog').then((found) => found.LookDialog));
const CheckDialog = later(() => import('./checks/CheckDialog').then((found) => found.CheckDialog));
const ChecksDialog = later(() => import('./checks/CheckDialog').then((found) => found.ChecksDialog));
const CodesDialog = later(() => import('./checks/CodesDialog').then((found) => found.CodesDialog));
const WriteDialog = later(() => import('./write/WriteDialog').then((found) => found.WriteDialog));
const RelearnDialog = later(() => import('./relearn/RelearnDialog').then((found) => found.RelearnDialog));
const ProgramDialog = later(() => import('./program/ProgramDialog').then((found) => found.ProgramDialog));
const ResetDialog = later(() => import('./relearn/ResetDialog').then((found) => found.ResetDialog));
const ExplainDialog = later(() => import('./follows/ExplainDialog').then((found) => found.ExplainDialog));
const ReplaceDialog = later(() => import('./replace/ReplaceDialog').then((found) => found.ReplaceDialog));
const ScanDialog = later(() => import('./scan/ScanDialog').then((found) => found.ScanDialog));
const WriteByHand = later(() => import('./write/WriteByHand').then((found) => found.WriteByHand));
const PutOffDialog = later(() => import('./put-off/PutOffDialog').then((found) => found.PutOffDialog));
const VisitDialog = later(() => import('./visit/VisitDialog').then((found) => found.VisitDialog));
const HistoryDialog = later(() => import('./visit/HistoryDialog').then((found) => found.HistoryDialog));
const CancelDialog = later(() => import('./visit/CancelDialog').then((found) => found.CancelDialog));
const CarDialog = later(() => import('./car/CarDialog').then((found) => found.CarDialog));
const ServiceDialog = later(() => import('./service/ServiceDialog').then((found) => found.ServiceDialog));
const HandOver = later(() => import('./hand-over/HandOverDialog').then((found) => found.HandOverDialog));
const TurnedOut = later(() => import('./hand-over/HandOverDialog').then((found) => found.TurnedOutDialog));

interface AtWheel {
  wheel: Position;
}

/** One dialog. */
interface Entry {
  /** Something is recorded in it that was seen or done at the car. */
  records: boolean;
  /** It leads to what only the shop can do: a reading or a correction waits on the device instead. */
  needsShop: boolean;
  show: (sheet: Sheet, asked: never) => ReactNode;
}

const dialogs = {
  keys: { records: false, needsShop: false, show: ({ close }: Sheet) => <KeysDialog onClose={close} /> },
  placard: {
    records: false,
    needsShop: false,
    show: ({ job, units, busy, problem, edit, close }: Sheet) => (
      <PlacardDialog
        {...{ job, units, busy, problem }}
        onClose={close}
        onSave={(placard, loadCase) => void edit({ placard, loadCase }).then((done) => done && close())}
      />
    ),
  },
  tires: {
    records: false,
    needsShop: false,
    show: ({ view, job, units, busy, problem, edit, act, close }: Sheet) => (
      <TiresDialog
        {...{ job, units, busy, problem }}
        onSave={(fitted) => void edit({ fitted }).then((done) => done && close())}
        onAim={(position, kPa) => void edit({ placard: aimingAt(job, position, kPa) })}
        onLampFigures={
          view.devices.takesThresholds
            ? (figures) => void act('Sending, do not unplug…', 'writeThresholds', { ...figures })
            : undefined
        }
        onClose={close}
      />
    ),
  },
  weather: {
    records: false,
    needsShop: false,
    show: ({ job, units, busy, problem, edit, close }: Sheet) => (
      <WeatherDialog
        climate={job.climate ?? {}}
        {...{ units, busy, problem }}
        onClose={close}
        onSave={(climate) => void edit({ climate }).then((done) => done && close())}
      />
    ),
  },
  tonight: {
    records: false,
    needsShop: false,
    show: ({ view, job, units, closed, edit, open, close }: Sheet) => (
      <TonightDialog
        jobId={view.id}
        {...{ job, units }}
        practice={view.devices.practice && !closed}
        onFillPolicy={(fillPolicy) => void edit({ climate: { ...job.climate, fillPolicy } })}
        onWeather={() => open({ dialog: 'weather' })}
        onClose={close}
      />
    ),
  },
  gauge: {
    records: true,
    needsShop: false,
    show: ({ view, job, columns, units, record, open, close }: Sheet, { wheel: first }: AtWheel) => (
      <GaugeDialog
        jobId={view.id}
        {...{ job, columns, first, units }}
        gauges={view.gauges.filter(({ retired }) => !retired)}
        practice={view.devices.practice}
        onRecord={record}
        onLosses={(wheel) => open({ dialog: 'losses', wheel })}
        onClose={close}
      />
    ),
  },
  losses: {
    records: false,
    needsShop: false,
    show: ({ job, units, closed, repaired, close }: Sheet, { wheel }: Partial<AtWheel>) => (
      <LossesDialog
        {...{ job, units }}
        first={wheel}
        onRepaired={closed ? undefined : repaired}
        onClose={close}
      />
    ),
  },
  scan: {
    records: true,
    needsShop: false,
    show: (
      { visit, view, job, columns, units, busy, problem, wake, record, close }: Sheet,
      { wheel }: AtWheel,
    ) => (
      <ScanDialog
        {...{ columns, wheel, busy, problem, units }}
        hasTool={view.devices.tool && visit.connected}
        digits={job.vehicle.tpms.idDigits}
        known={(at) =>
          job.sensors?.find((one) => one.wheel === at)?.id ?? ledgerOf(job).registered[at] ?? undefined
        }
        onRecord={(observation) => {
          record(observation);
          close();
        }}
        onRecordAll={(observations) => {
          for (const observation of observations) record(observation);
          close();
        }}
        onWake={(at, trigger) => void wake(at, trigger).then((done) => done && close())}
        onClose={close}
      />
    ),
  },
  lamp: {
    records: false,
    needsShop: false,
    show: ({ view, record, close }: Sheet) => (
      <LampDialog jobId={view.id} practice={view.devices.practice} onRecord={record} onClose={close} />
    ),
  },
  look: {
    records: true,
    needsShop: false,
    show: ({ columns, record, close }: Sheet, { wheel }: AtWheel) => (
      <LookDialog first={wheel} columns={columns} onRecord={record} onClose={close} />
    ),
  },
  checks: {
    records: true,
    needsShop: false,
    show: ({ job, chosen, open, close }: Sheet) => (
      <ChecksDialog
        kind={job.vehicle.tpms.kind}
        onLook={() => open({ dialog: 'look', wheel: chosen ?? 'LF' })}
        onCheck={(test) => open(test === 'baseline' ? { dialog: 'reset' } : { dialog: 'check', test })}
        onCodes={() => open({ dialog: 'codes' })}
        onClose={close}
      />
    ),
  },
  check: {
    records: true,
    needsShop: false,
    show: ({ job, units, record, close }: Sheet, { test }: { test: FormCheck }) => (
      <CheckDialog {...{ test, job, units }} onRecord={record} onClose={close} />
    ),
  },
  codes: {
    records: true,
    needsShop: false,
    show: ({ view, job, record, close }: Sheet) => (
      <CodesDialog job={job} codes={view.codes} onRecord={record} onClose={close} />
    ),
  },
  'what-if': {
    records: false,
    needsShop: false,
    show: ({ judged, view, units, close }: Sheet) => (
      <WhatIfDialog {...judged} experience={view.experience} units={units} onClose={close} />
    ),
  },
  act: {
    records: true,
    needsShop: false,
    show: (sheet: Sheet, { finding }: { finding: Finding }) => <ActDialog {...{ sheet, finding }} />,
  },
  /** `write`: the key of a write that is looked at; none while a new one is prepared. */
  write: {
    records: true,
    needsShop: false,
    show: (sheet: Sheet, { write }: { write?: string }) =>
      sheet.view.devices.lead && sheet.visit.connected ? (
        <WriteDialog {...{ sheet, write }} />
      ) : (
        <WriteByHand sheet={sheet} />
      ),
  },
  relearn: { records: true, needsShop: true, show: (sheet: Sheet) => <RelearnDialog sheet={sheet} /> },
  reset: { records: true, needsShop: false, show: (sheet: Sheet) => <ResetDialog sheet={sheet} /> },
  explain: {
    records: true,
    needsShop: false,
    show: (sheet: Sheet, { wheel }: AtWheel) => <ExplainDialog {...{ sheet, wheel }} />,
  },
  replace: { records: false, needsShop: false, show: (sheet: Sheet) => <ReplaceDialog sheet={sheet} /> },
  program: {
    records: true,
    needsShop: true,
    show: (sheet: Sheet, { wheel }: Partial<AtWheel>) => <ProgramDialog {...{ sheet, wheel }} />,
  },
  service: {
    records: true,
    needsShop: false,
    show: (sheet: Sheet, { wheel }: Partial<AtWheel>) => <ServiceDialog {...{ sheet, wheel }} />,
  },
  car: {
    records: true,
    needsShop: false,
    show: (sheet: Sheet, { part }: { part?: CarPart }) => <CarDialog {...{ sheet, part }} />,
  },
  'not-yours': {
    records: false,
    needsShop: false,
    show: ({ close }: Sheet) => <NotHere why="not-yours" onClose={close} />,
  },
  'no-connection': {
    records: false,
    needsShop: false,
    show: ({ close }: Sheet) => <NotHere why="no-connection" onClose={close} />,
  },
  visit: { records: false, needsShop: false, show: (sheet: Sheet) => <VisitDialog sheet={sheet} /> },
  history: { records: false, needsShop: true, show: (sheet: Sheet) => <HistoryDialog sheet={sheet} /> },
  cancel: { records: false, needsShop: true, show: (sheet: Sheet) => <CancelDialog sheet={sheet} /> },
  'put-off': { records: false, needsShop: false, show: (sheet: Sheet) => <PutOffDialog sheet={sheet} /> },
  prove: {
    records: false,
    needsShop: false,
    show: ({ visit, view, proof, busy, problem, clearCodes, readCar, drive, open, close }: Sheet) => (
      <ProveDialog
        {...{ proof, busy, problem }}
        hasLead={view.devices.lead && visit.connected}
        practice={view.devices.practice}
        onClear={() => void clearCodes()}
        onRead={() => void readCar()}
        onDrive={() => void drive()}
        onLamp={() => open({ dialog: 'lamp' })}
        onType={() => open({ dialog: 'car' })}
        onClose={close}
      />
    ),
  },
  'hand-over': {
    records: false,
    needsShop: true,
    show: ({ view, job, proof, judged, mayConfirm, busy, sending, problem, act, close }: Sheet) => (
      <HandOver
        {...{ job, proof, mayConfirm, problem }}
        findings={judged.assessment.findings}
        devices={view.devices}
        busy={busy ?? (sending ? 'Sending what was read…' : undefined)}
        experience={view.experience}
        sheet={`/jobs/${view.id}/sheet`}
        onHandOver={(unproved, parts, strokes) =>
          void act('Handing over…', 'handOver', {
            version: view.version,
            ...(unproved && { unproved }),
            ...(parts.length > 0 && { parts: [...parts] }),
            ...(strokes.length > 0 && { signature: { strokes } }),
          }).then((done) => done && window.location.assign(`/jobs/${view.id}/sheet`))
        }
        onClose={close}
      />
    ),
  },
  'turned-out': {
    records: false,
    needsShop: true,
    show: ({ view, job, busy, problem, act, close }: Sheet) => (
      <TurnedOut
        {...{ job, busy, problem }}
        experience={view.experience}
        onConfirm={(parts) =>
          void act('Saving…', 'confirm', { parts: [...parts] }).then((done) => done && close())
        }
        onClose={close}
      />
    ),
  },
} satisfies Record<string, Entry>;

type Dialogs = typeof dialogs;

/** What can be opened, and with what. */
export type Open = {
  [Name in keyof Dialogs]: { dialog: Name } & (Parameters<Dialogs[Name]['show']> extends [Sheet, infer Asked]
    ? Asked
    : unknown);
}[keyof Dialogs];

/** The dialog, or why it cannot be opened by this person, or now. */
function openable(asked: Open, { mayRecord, visit }: Sheet): Open {
  const { records, needsShop } = dialogs[asked.dialog];
  if (records && !mayRecord) return { dialog: 'not-yours' };
  return needsShop && !visit.connected ? { dialog: 'no-connection' } : asked;
}

/** The dialog that is open. Whether it may be is asked when it is opened: a connection lost later takes nothing away. */
export function OpenDialog({ sheet, opened }: { sheet: Sheet; opened: Open }): ReactNode {
  const [now, setNow] = useState({ opened, shown: openable(opened, sheet) });
  if (now.opened !== opened) setNow({ opened, shown: openable(opened, sheet) });
  // Each is shown with what it was opened with: `Open` says so name by name.
  const show = dialogs[now.shown.dialog].show as (sheet: Sheet, asked: Open) => ReactNode;
  return show(sheet, now.shown);
}
