import type { Assessment, Finding } from '../../../assessment';
import { findingKey, type FindingCode } from '../../../finding';
import type { Job } from '../../../job';
import { ledgerOf } from '../../../ledger';
import { setAsideSlips } from '../../../unit-slip';
import { figure, format, pressure, temperature, type UnitChoice } from '../../../units';
import { evidenceOf } from '../../evidence';
import { carReasons } from './car';
import type { Clause, Known, Reason } from './clause';
import { idReasons } from './id';
import { sensorReasons } from './sensor';
import { tireReasons } from './tire';

/**
 * Why a finding is made, in the sentences a technician would say. Each sentence stands on observations of the job that it
 * names; none says what nobody saw.
 */
export type { Clause, Told } from './clause';

const reasons: Record<FindingCode, Reason> = {
  ...tireReasons,
  ...sensorReasons,
  ...idReasons,
  ...carReasons,
};

/** The sentences of a finding, in the order of its wheels; with the places in the job of what each stands on. */
export function clausesFor(
  job: Job,
  { code, wheels }: Pick<Finding, 'code' | 'wheels'>,
  positions: Assessment['positions'],
  units: UnitChoice,
): Clause[] {
  const { job: sensible, places } = setAsideSlips(job);
  const ledger = ledgerOf(sensible);
  const known: Known = {
    job: sensible,
    ledger,
    evidence: evidenceOf(sensible, ledger),
    positions,
    kPa: (value) => figure(pressure, value, units.pressure),
    celsius: (value) => format(temperature, value, units.temperature),
  };
  const reason = reasons[code];
  const said =
    'ofCar' in reason ? reason.ofCar(known) : wheels.flatMap((wheel) => reason.at({ ...known, wheel }));
  const unlike = said.filter(({ words }, at) => said.findIndex((other) => other.words === words) === at);
  return places ? unlike.map((one) => ({ ...one, on: one.on.map((at) => places[at] ?? at) })) : unlike;
}

/** The same as one text, of no more than two sentences a finding about wheels, and three about the car. */
export function reasonFor(...asked: Parameters<typeof clausesFor>): string | undefined {
  const said = clausesFor(...asked).map(({ words }) => words);
  if (said.length === 0) return undefined;
  const most = asked[1].wheels.length > 1 ? mostOfWheels : mostOfOne;
  return `${said.slice(0, most).join(' ')}${said.length > most ? ' And so on.' : ''}`;
}

/** Why each finding is made that has a reason to tell, by its key. */
export type Reasons = Readonly<Record<string, string>>;

export const reasonsFor = (job: Job, { findings, positions }: Assessment, units: UnitChoice): Reasons =>
  Object.fromEntries(
    findings.flatMap((finding) => {
      const reason = reasonFor(job, finding, positions, units);
      return reason === undefined ? [] : [[findingKey(finding), reason]];
    }),
  );

/** More would not be read. */
const mostOfWheels = 2;
const mostOfOne = 3;
