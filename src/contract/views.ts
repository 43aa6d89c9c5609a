import type { Standing } from '../core/visit/proof/standing';
import type { RepairOutcome } from '../core/job/repair-outcome';
import type { Experience } from '../core/judgement/diagnosis';
import { asJudged, type Instrument } from '../core/tire/gauge';
import type { Job } from '../core/job';
import type { JobState } from '../core/names/kinds';
import type { Prices } from '../core/visit/replacement/prices';
import type { LifeCurve } from '../core/sensor/life';
import type { SensorLives } from '../core/sensor/life/lifetimes';
import type { CodeTable } from '../core/car/trouble-code/meaning';
import type { Position } from '../core/names/wheel';
import type { LampState, MonitoringKind } from '../core/names/kinds';
import type { Move } from '../core/visit';

/** What a shop can have. */
export const deviceKinds = ['tool', 'lead', 'weather'] as const;
export type DeviceKind = (typeof deviceKinds)[number];

/** A device of the shop: where it answers, and how it last did. */
export interface DeviceState {
  kind: DeviceKind;
  /** Empty where none is set up. */
  address: string;
  /** By a variable of the command that started the server, which comes before what is set up. */
  namedAtStart: boolean;
  /** Since when it has answered without a miss, and when last. */
  since: string | null;
  lastHeardAt: string | null;
  trouble: { at: string; message: string } | null;
  /** Who used it last. */
  by: string | null;
}

/** A visit as a screen gets it: the facts. What follows is worked out where it is shown. */
export interface VisitView {
  id: string;
  number: number;
  vehicleId: string;
  /** Of the header and the state; a change names the version it was made on. */
  version: number;
  /** Counts all that was recorded and corrected. */
  revision: number;
  state: JobState;
  /** As it was recorded: readings as they were read. */
  job: Job;
  /** What the shop had seen when the job was opened, where it is what a verdict rests on too. */
  experience?: Experience;
  /** How long sensors last here, where enough of the shop's own ended to tell. */
  sensorCurve?: LifeCurve;
  /** What replacing a sensor costs here, where the shop said so. */
  prices?: Prices;
  /** What the maker's codes are about on this vehicle, by its profile. */
  codes: CodeTable;
  devices: DevicesAtHand;
  /** The gauges in use and those it was read with, each with the checks that speak for its readings. */
  gauges: Instrument[];
}

/** What can be done to this car here. */
export interface DevicesAtHand {
  /** Connected, so that a press wakes a sensor, or reads the car. */
  tool: boolean;
  lead: boolean;
  /** The shop has one of its own, whose readings are typed. */
  ownTool: boolean;
  ownLead: boolean;
  /** The car's receiver takes other pressures for its lamp. */
  takesThresholds: boolean;
  practice: boolean;
}

/** What can be read here at all, by a device or by hand. */
export const readable = ({ tool, lead, ownTool, ownLead }: DevicesAtHand) => ({
  hasTool: tool || ownTool,
  hasLead: lead || ownLead,
});

/** The job of a visit as it is judged, by the gauges it was read with. */
export const judgedJob = ({ job, gauges }: Pick<VisitView, 'job' | 'gauges'>): Job => asJudged(job, gauges);

/** A line of the Yard. */
export interface YardLine {
  id: string;
  number: number;
  label: string;
  plate: string;
  state: JobState;
  openedAt: string;
  openedBy: string;
  handedOverAt: string | null;
  lamp: LampState | 'not-seen';
  headline: string;
  /** Whether all was shown that proves it, and if not, whether something is known to be wrong. */
  standing: Standing;
  move: Move;
  /** The record of it that cannot be read as it is stored: then nothing is said of it. */
  unreadable?: string;
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
  /** The job that is open for it now. */
  openJob: { id: string; number: number } | null;
}

export interface ProfileSummary {
  name: string;
  label: string;
  fromYear: number | null;
  toYear: number | null;
  kind: MonitoringKind;
}

/** What the shop's cars turned out to have, and the visits it comes from, the newest first. */
export interface ShopFigures {
  experience: Experience;
  visits: ConfirmedVisit[];
  sensorLives: SensorLives;
}

export interface ConfirmedVisit {
  jobId: string;
  number: number;
  label: string;
  plate: string;
  at: string;
  by: string;
  parts: RepairOutcome[];
}

/** The simulated car as a look at it would show. */
export interface PracticeCar {
  lamp: LampState;
  speedKmh: number;
  kPa: Partial<Record<Position, number>>;
  /** Of the air in each tire, °C. */
  tireC: Partial<Record<Position, number>>;
  outdoorC: number;
}
