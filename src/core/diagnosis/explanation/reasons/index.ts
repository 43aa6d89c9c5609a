import type { Assessment, Finding } from '../../../assessment';
import { findingKey, type FindingCode } from '../../../finding';
import type { Job } from '../../../job';
import { ledgerOf } from '../../../ledger';
import { setAsideSlips } from '../../../unit-slip';
import { figure, format, pressure, temperature, type UnitChoice } from '../../../units';
import { listWheels } from '../../../wheel';
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

/** The same as one text: of the first two wheels, with the others named; or of the car. */
export function reasonFor(
  ...[job, finding, positions, units]: Parameters<typeof clausesFor>
): string | undefined {
  const { code, wheels } = finding;
  const others = wheels.slice(mostWheels);
  const said = clausesFor(job, { code, wheels: wheels.slice(0, mostWheels) }, positions, units);
  if (said.length === 0) return undefined;
  // What was seen first, then what was told at the counter.
  const ordered = [...said.filter(({ on }) => on.length > 0), ...said.filter(({ on }) => on.length === 0)];
  const words = ordered.slice(0, mostSentences).map((one) => one.words);
  return [...words, ...(others.length > 0 ? [`Likewise at ${listWheels(others)}.`] : [])].join(' ');
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
const mostWheels = 2;
const mostSentences = 3;
