import type { DueFollowUp } from '../follow-up';
import { aboutWords } from '../follow-up';
import type { ListedJob } from '../search';
import { stateWords } from '../../visit/words';
import type { Table } from '.';

/** The lists of the shop as tables, to be taken away. */

/** A moment as a spreadsheet reads it: day and minute, UTC. */
const minute = (at: string | null): string | null => at && at.slice(0, 16).replace('T', ' ');

export const jobsTable = (jobs: readonly ListedJob[]): Table => ({
  name: 'jobs',
  title: 'Jobs',
  columns: [
    { label: 'job' },
    { label: 'vehicle' },
    { label: 'plate' },
    { label: 'customer' },
    { label: 'booked in, UTC' },
    { label: 'booked in by' },
    { label: 'state' },
    { label: 'handed over, UTC' },
    { label: 'not proved because' },
  ],
  rows: jobs.map((job) => [
    job.number,
    job.label,
    job.plate,
    job.customer,
    minute(job.openedAt),
    job.openedBy,
    stateWords[job.state],
    minute(job.handedOverAt),
    job.unproved,
  ]),
});

export const followUpsTable = (followUps: readonly DueFollowUp[]): Table => ({
  name: 'follow-ups',
  title: 'To look at again',
  columns: [
    { label: 'due' },
    { label: 'what' },
    { label: 'wheel' },
    { label: 'note' },
    { label: 'vehicle' },
    { label: 'plate' },
    { label: 'customer' },
    { label: 'phone' },
    { label: 'job' },
  ],
  rows: followUps.map((one) => [
    one.dueOn,
    aboutWords[one.about],
    one.wheel,
    one.note,
    one.label,
    one.plate,
    one.customer,
    one.phone,
    one.number,
  ]),
});

/** A wheel set that lies in the shop. */
export interface StoredSet {
  rack: string | null;
  label: string;
  season: string;
  wheels: number;
  vehicle: string;
  plate: string;
  customer: string | null;
}

export const storedSetsTable = (sets: readonly StoredSet[]): Table => ({
  name: 'stored-sets',
  title: 'Wheel sets in the shop',
  columns: [
    { label: 'rack place' },
    { label: 'set' },
    { label: 'season' },
    { label: 'wheels' },
    { label: 'vehicle' },
    { label: 'plate' },
    { label: 'customer' },
  ],
  rows: sets.map((one) => [
    one.rack,
    one.label,
    one.season,
    one.wheels,
    one.vehicle,
    one.plate,
    one.customer,
  ]),
});

/** A customer with their vehicles. */
export interface ListedCustomer {
  name: string;
  phone: string | null;
  email: string | null;
  plates: string;
  lastVisitAt: string | null;
}

export const customersTable = (customers: readonly ListedCustomer[]): Table => ({
  name: 'customers',
  title: 'Customers',
  columns: [
    { label: 'customer' },
    { label: 'phone' },
    { label: 'e-mail' },
    { label: 'plates' },
    { label: 'last visit, UTC' },
  ],
  rows: customers.map((one) => [one.name, one.phone, one.email, one.plates, minute(one.lastVisitAt)]),
});

/** A gauge of the register, and how it stands. */
export interface ListedGauge {
  name: string;
  kind: string;
  status: string;
  checkedAt: string | null;
  checkedBy: string | null;
}

export const gaugesTable = (gauges: readonly ListedGauge[]): Table => ({
  name: 'gauges',
  title: 'Gauges',
  columns: [
    { label: 'gauge' },
    { label: 'kind' },
    { label: 'how it stands' },
    { label: 'checked last, UTC' },
    { label: 'checked by' },
  ],
  rows: gauges.map((one) => [one.name, one.kind, one.status, minute(one.checkedAt), one.checkedBy]),
});

/** A line of the record: somebody saw or changed something. */
export interface Trace {
  at: Date;
  by: string;
  /** What was looked at; or which fields were changed, and the like. */
  what: string;
  detail: string | null;
  isLook: boolean;
  number: number | null;
  label: string | null;
  plate: string | null;
}

export const tracesTable = (traces: readonly Trace[]): Table => ({
  name: 'traces',
  title: 'Who saw and changed what',
  columns: [
    { label: 'when, UTC' },
    { label: 'who' },
    { label: 'did' },
    { label: 'job' },
    { label: 'vehicle' },
    { label: 'plate' },
    { label: 'what' },
  ],
  rows: traces.map(({ at, by, what, detail, isLook, number, label, plate }) => [
    at.toISOString().slice(0, 19).replace('T', ' '),
    by,
    isLook ? `saw: ${what}` : what,
    number,
    label,
    plate,
    detail,
  ]),
});
