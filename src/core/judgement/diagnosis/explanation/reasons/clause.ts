import type { Assessment } from '../../../assessment';
import type { GaugeOff } from '../../../../tire/gauge-off';
import type { Job, Placed } from '../../../../job';
import type { Ledger } from '../../../../job/ledger';
import type { Evidence } from '../../evidence';
import type { Position } from '../../../../names/wheel';

/** What of the job's head a clause may stand on: what was said at the counter, or is on file. */
export type Told = 'service' | 'climate' | 'record' | 'placard';

/** One sentence of a reason, with the observations it stands on, by their place in the job. */
export interface Clause {
  words: string;
  on: readonly number[];
  /** It stands on this as well; alone only where nothing of it could have been observed. */
  told?: Told;
}

/** What is known while reasons are worded. */
export interface Known {
  job: Job;
  ledger: Ledger;
  evidence: Evidence;
  positions: Assessment['positions'];
  /** An instrument that is off: its readings are not in the job that is spoken of. */
  gaugeOff: GaugeOff | undefined;
  /** A pressure in the shop's unit, without the unit. */
  kPa: (value: number) => string;
  /** A temperature in the shop's unit, with it. */
  celsius: (value: number) => string;
}

/** A wheel a finding is about. */
export interface AtWheel extends Known {
  wheel: Position;
}

/** How the reasons of a finding are worded: of each wheel it names, or of the car. */
export type Reason = { at: (at: AtWheel) => Clause[] } | { ofCar: (known: Known) => Clause[] };

/** An observation, by its place in the job. */
export type Cited = Pick<Placed<'lamp'>, 'index'>;

export const clause = (words: string, ...seen: (Cited | undefined)[]): Clause => ({
  words,
  on: seen.flatMap((placed) => (placed ? [placed.index] : [])),
});

/** The clause, where there is something for it to stand on. */
export const where = <Thing>(
  thing: Thing | null | undefined,
  say: (thing: Thing) => Clause | undefined,
): Clause[] => {
  const said = thing == null ? undefined : say(thing);
  return said ? [said] : [];
};

/** What was said, where anything was; else the other. */
export const orElse = (said: Clause[], other: () => Clause[]): Clause[] => (said.length > 0 ? said : other());
