import type { Assessment } from '../assessment';
import type { Confirmed } from '../confirmed';
import type { Experience } from '../diagnosis';
import type { Instrument } from '../gauge';
import type { Header, Job } from '../job';
import type { Proof } from '../proof';
import type { CodeTable } from '../trouble-code/meaning';
import type { Position } from '../wheel';
import type { Move } from '.';

/** A visit as a screen gets it: what was seen, what follows, and what to do next. */
export interface VisitView {
  id: string;
  number: number;
  /** Of the header and the state; a change names the version it was made on. */
  version: number;
  state: 'open' | 'handed-over';
  job: Job;
  assessment: Assessment;
  /** What the shop had seen when the job was opened, where it is what the assessment rests on too. */
  experience?: Experience;
  /** What the maker's codes are about on this vehicle, by its profile. */
  codes: CodeTable;
  proof: Proof;
  move: Move;
  devices: { tool: boolean; lead: boolean; practice: boolean };
  /** The gauges in use, each with its last check. */
  gauges: Instrument[];
}

/** A line of the Yard. */
export interface YardLine {
  id: string;
  number: number;
  label: string;
  plate: string;
  state: 'open' | 'handed-over';
  openedAt: string;
  openedBy: string;
  handedOverAt: string | null;
  lamp: 'off' | 'steady' | 'flash-then-steady' | 'flash-while-driving' | 'not-seen';
  headline: string;
  move: Move;
}

/** What booking in needs to know about a vehicle that was here before, or of a kind that is on file. */
export interface KnownVehicle {
  id: string;
  vin: string | null;
  plate: string | null;
  label: string;
  modelYear: number | null;
  profile: string | null;
  visits: number;
  lastOdometerKm: number | null;
}

export interface ProfileSummary {
  name: string;
  label: string;
  fromYear: number | null;
  toYear: number | null;
  kind: 'direct' | 'indirect' | 'none';
}

/** What the shop's cars turned out to have, and the visits it comes from, the newest first. */
export interface ShopFigures {
  experience: Experience;
  visits: ConfirmedVisit[];
}

export interface ConfirmedVisit {
  jobId: string;
  number: number;
  label: string;
  plate: string;
  at: string;
  by: string;
  parts: Confirmed[];
}

/** The simulated car as a look at it would show. */
export interface PracticeCar {
  lamp: 'off' | 'steady' | 'flash-then-steady' | 'flash-while-driving';
  speedKmh: number;
  kPa: Partial<Record<Position, number>>;
  /** Of the air in each tire, °C. */
  tireC: Partial<Record<Position, number>>;
  outdoorC: number;
}

/** Extension keys of ours in a job file: who, when, and what the customer said. */
export interface VisitNotes {
  key?: string;
  complaint?: string;
  openedAt?: string;
  openedBy?: string;
  handedOverAt?: string;
  handedOverBy?: string;
  unproved?: string;
  /** What was worked out on the bench for this visit. */
  bench?: { text: string; link: string; at: string; by: string }[];
}

export function notesOf(job: Header): VisitNotes {
  return (job.visit as VisitNotes | undefined) ?? {};
}

export function plateOf(job: Header): string {
  const { plate } = job.vehicle;
  return typeof plate === 'string' ? plate : '';
}

/** The name of the vehicle's profile, where it has one. */
export function profileOf(job: Pick<Header, 'vehicle'>): string | undefined {
  const { profile } = job.vehicle;
  return typeof profile === 'string' ? profile : undefined;
}
