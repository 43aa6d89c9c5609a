import { useState } from 'react';
import type { HeaderChanges } from '../../contract';
import type { Assessment } from '../../core/judgement/assessment';
import type { Job, Observation, Seen } from '../../core/job';
import { columnsOf, type Column } from '../../core/visit/column';
import type { Proof } from '../../core/visit/proof';
import type { Reasons } from '../../core/judgement/diagnosis/explanation/reasons';
import type { Notation } from '../../core/measure/units';
import type { Move } from '../../core/visit';
import type { Person } from '../../core/visit/person';
import type { VisitView } from '../../contract/views';
import type { Position } from '../../core/names/wheel';
import { shopTime } from '../clock';
import type { Open } from './dialogs';
import type { Judged } from './use-assessment';
import { useVerdict, type Verdict } from './use-verdict';
import { useVisit, type Act, type Visit } from './use-visit';

export interface SheetProps {
  initial: VisitView;
  /** What follows from it, so that the verdict is there with the page. */
  assessment: Assessment;
  /** Why, in words, likewise. */
  reasons: Reasons;
  units: Notation;
  /** Who is signed in. */
  person: Pick<Person, 'id' | 'name' | 'role'>;
}

/** Everything a part of the job sheet, or a dialog on it, may want to know or do. */
export interface Sheet {
  visit: Visit;
  view: VisitView;
  units: Notation;
  /** The facts as they are judged, with what is still on its way. */
  job: Job;
  /** The job the verdict speaks of. */
  judged: Judged;
  shown: Verdict['shown'];
  columns: Column[];
  proof: Proof;
  move: Move;
  check: Verdict['check'];
  closed: boolean;
  /** The ID of who is signed in. */
  me: string;
  mayConfirm: boolean;
  /** Whether this person records what is seen at the car: the counter does not. */
  mayRecord: boolean;
  /** The wheel that was chosen by its digit. */
  chosen: Position | undefined;
  choose: (wheel: Position) => void;
  /** What is going on, with its seconds once it lasts. */
  busy: string | undefined;
  /** Whether something read here is still on its way: the shop cannot judge what it does not have yet. */
  sending: boolean;
  problem: string | undefined;
  opened: Open | undefined;
  open: (dialog: Open) => void;
  close: () => void;
  act: Act;
  record: (observation: Observation, replaces?: string) => void;
  edit: (changes: HeaderChanges) => Promise<boolean>;
  service: Visit['service'];
  wake: (wheel: Position, trigger: Seen<'activation'>['trigger']) => Promise<boolean>;
  readCar: () => Promise<boolean>;
  clearCodes: () => Promise<boolean>;
  readBack: (write: string) => Promise<boolean>;
  drive: () => Promise<boolean>;
  repaired: (wheel: Position) => void;
}

/** How long a wait is called by its name alone, s; after that the seconds are counted beside it. */
const countAfterS = 3;

export function useSheet({ initial, assessment, reasons, units, person }: SheetProps): Sheet {
  const { role } = person;
  const visit = useVisit(initial, person);
  const { view, facts, act, record, edit, service } = visit;
  const verdict = useVerdict(initial, { assessment, reasons }, view, facts, units);
  const { job, judged } = verdict;
  const mayRecord = role !== 'adviser';
  const [opened, open] = useState<Open>();
  const [chosen, choose] = useState<Position>();
  const { busy } = visit;
  const close = () => {
    open(undefined);
    visit.dismissProblem();
  };
  return {
    ...verdict,
    visit,
    view,
    units,
    columns: columnsOf(job, judged.assessment),
    closed: view.state !== 'open',
    me: person.id,
    mayConfirm: role !== 'adviser',
    mayRecord,
    chosen,
    choose,
    busy: busy && (busy.seconds >= countAfterS ? `${busy.what} ${busy.seconds} s` : busy.what),
    sending: visit.waiting.some(({ refused, by }) => refused === undefined && (!by || by.id === person.id)),
    problem: visit.problem?.message,
    opened,
    open,
    close,
    act,
    record,
    edit,
    service,
    wake: (wheel, trigger) => act(`Waking ${wheel}…`, 'wake', { wheel, trigger }),
    readCar: () => act('Reading the car…', 'readCar', {}),
    clearCodes: () => act('Clearing the codes…', 'clearCodes', {}),
    readBack: (write) => act('Reading back…', 'readBack', { write }),
    drive: () => act('Driving…', 'practise', { do: 'drive' }),
    repaired: (wheel) =>
      void edit({ repairs: [...(job.repairs ?? []), { wheel, at: shopTime() }] }).then(
        (done) => done && close(),
      ),
  };
}
