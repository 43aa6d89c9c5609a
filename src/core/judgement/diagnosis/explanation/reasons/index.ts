import type { Assessment, Finding } from '../../../assessment';
import { findingKey, type FindingCode } from '../../../../catalogue/finding';
import type { Job } from '../../../../job';
import { ledgerOf } from '../../../../job/ledger';
import { setAside } from '../../../../tire/set-aside';
import { figure, format, pressure, temperature, type Notation } from '../../../../measure/units';
import { listWheels } from '../../../../names/wheel';
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

/** A finding, as it is named. */
type Named = Pick<Finding, 'code' | 'wheels'>;

/** What is known of a job, to be spoken of in these units; and where in the job its observations stand. */
interface Subject {
  known: Known;
  places: readonly number[] | undefined;
}

function subjectOf(job: Job, positions: Assessment['positions'], units: Notation): Subject {
  const { job: sensible, places, gaugeOff } = setAside(job);
  const ledger = ledgerOf(sensible);
  const known: Known = {
    job: sensible,
    ledger,
    evidence: evidenceOf(sensible, ledger),
    positions,
    gaugeOff,
    kPa: (value) => figure(pressure, value, units),
    celsius: (value) => format(temperature, value, units),
  };
  return { known, places };
}

/** The sentences of a finding, in the order of its wheels; with the places in the job of what each stands on. */
export const clausesFor = (
  job: Job,
  finding: Named,
  positions: Assessment['positions'],
  units: Notation,
): Clause[] => clausesIn(subjectOf(job, positions, units), finding);

function clausesIn({ known, places }: Subject, { code, wheels }: Named): Clause[] {
  const reason = reasons[code];
  const said =
    'ofCar' in reason ? reason.ofCar(known) : wheels.flatMap((wheel) => reason.at({ ...known, wheel }));
  const unlike = said.filter(({ words }, at) => said.findIndex((other) => other.words === words) === at);
  // What was set aside is cited by its place in the job as it was handed in.
  return places && code !== 'gauge-off'
    ? unlike.map((one) => ({ ...one, on: one.on.map((at) => places[at] ?? at) }))
    : unlike;
}

/** The same as one text: of the first two wheels, with the others named; or of the car. */
function reasonIn(subject: Subject, { code, wheels }: Named): string | undefined {
  const others = wheels.slice(mostWheels);
  const said = clausesIn(subject, { code, wheels: wheels.slice(0, mostWheels) });
  if (said.length === 0) return undefined;
  // What was seen first, then what was told at the counter.
  const ordered = [...said.filter(({ on }) => on.length > 0), ...said.filter(({ on }) => on.length === 0)];
  const words = ordered.slice(0, mostSentences).map((one) => one.words);
  return [...words, ...(others.length > 0 ? [`Likewise at ${listWheels(others)}.`] : [])].join(' ');
}

/** Why each finding is made that has a reason to tell, by its key. */
export type Reasons = Readonly<Record<string, string>>;

export function reasonsFor(
  job: Job,
  { findings, positions }: Pick<Assessment, 'positions'> & { findings: readonly Named[] },
  units: Notation,
): Reasons {
  const subject = subjectOf(job, positions, units);
  return Object.fromEntries(
    findings.flatMap((finding) => {
      const reason = reasonIn(subject, finding);
      return reason === undefined ? [] : [[findingKey(finding), reason]];
    }),
  );
}

/** More would not be read. */
const mostWheels = 2;
const mostSentences = 3;
