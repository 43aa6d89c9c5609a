import { holds, type Assessment, type Finding } from '../assessment';
import { findingCodes, type FindingCode } from '../../catalogue/finding';
import { adviceOn, type SeenThere } from '../../catalogue/finding/advice';
import { damageAt, isNearFlat } from '../../tire/damage';
import { targetsFor } from '../../tire/filling';
import type { Job } from '../../job';
import { lampMeaning, lampTomorrow } from '../../car/lamp';
import { ledgerOf } from '../../job/ledger';
import { compareRegistration } from '../../car/registration';
import { gaugeOffIn, type GaugeOff } from '../../tire/gauge-off';
import { setAside } from '../../tire/set-aside';
import type { Notation } from '../../measure/units';
import { inWalkingOrder, type Position } from '../../names/wheel';
import { Factors, posteriorOf } from './inference';
import { type Claim, type Judgement, claimsFrom, decisionFrom, nextTests, rounded } from './decision';
import { type Context, evidenceOf } from './evidence';
import { type Experience, priorsFor } from './learning';
import { decibans, inconsistenciesOf, leastNamed, weigherOf } from './explanation';
import type { Reasons } from './explanation/reasons';

export { addExperience, historyMayMoveBy, type Experience } from './learning/experience';
export { plainChance } from './learning/priors';

/** Everything at least this likely is told (contract of the assessment). */
const leastTold = 0.05;

/** What follows from a job. Pure: the same job, and the same experience of the shop, give the same assessment. */
export function assess(job: Job, experience?: Experience): Assessment {
  const { job: sensible, places, gaugeOff } = setAside(job);
  const judging = judged(sensible, gaugeOff, experience);
  const judge = (other: Job) => judgementOf(other, gaugeOff, experience, judging).judgement;
  const weigh = weigherOf(sensible, judging.judgement, judge);
  // Evidence names an observation by its place in the job as it was handed in.
  const inJob: Weigh = (code, wheels) =>
    code === 'gauge-off'
      ? weightsOfGaugeOff(job)
      : weigh(code, wheels).map((weight) => ({
          ...weight,
          observation: places?.[weight.observation] ?? weight.observation,
        }));
  return assessmentFrom(job, judging, inJob);
}

/** The same without the evidence of the findings, which takes longest: a verdict to show while that is weighed. */
export function assessBriefly(job: Job, experience?: Experience): Assessment {
  const { job: sensible, gaugeOff } = setAside(job);
  return assessmentFrom(job, judged(sensible, gaugeOff, experience), noEvidence);
}

/** The judgement alone: what holds, what to check next, and whether to act; and what is told, wheel by wheel. */
export function verdictOn(
  job: Job,
  experience?: Experience,
): Pick<Assessment, 'findings' | 'nextTests' | 'decision'> & { told: readonly Claim[] } {
  const { job: sensible, gaugeOff } = setAside(job);
  const judging = judged(sensible, gaugeOff, experience);
  return { ...verdictFrom(judging, noEvidence), told: judging.told };
}

const noEvidence: Weigh = () => [];

function verdictFrom({ judgement, told }: ReturnType<typeof judged>, weigh: Weigh) {
  const findings = findingsFrom(told, weigh, namedByCodes(judgement), seenIn(judgement));
  const tests = nextTests(judgement);
  return { findings, nextTests: tests, decision: decisionFrom(findings, tests) };
}

function assessmentFrom(asked: Job, judging: ReturnType<typeof judged>, weigh: Weigh): Assessment {
  const { judgement } = judging;
  const { ledger } = judgement;
  const { job } = judgement.evidence.context;
  const { findings, nextTests: tests, decision } = verdictFrom(judging, weigh);
  const tomorrow = lampTomorrow(job, ledger);
  const registration = compareRegistration(job, ledger);
  const inconsistencies = [...setAside(asked).asked, ...inconsistenciesOf(asked)];
  const positions = positionsFrom(judgement);
  return {
    format: 'hacienda.assessment/1',
    findings,
    targets: targetsFor(job, ledger),
    lamp: { meaning: lampMeaning(ledger.lamp?.seen), ...(tomorrow && { tomorrow }) },
    ...(registration && { registration }),
    ...(Object.keys(positions).length > 0 && { positions }),
    nextTests: tests,
    decision,
    ...(inconsistencies.length > 0 && { inconsistencies }),
  };
}

function judged(job: Job, gaugeOff: GaugeOff | undefined, experience: Experience | undefined) {
  const { judgement, factors } = judgementOf(job, gaugeOff, experience);
  const told = claimsFrom(judgement).filter(({ chance }) => chance >= leastTold);
  return { judgement, told, factors };
}

/** `like`: a job so much alike that sums worked out for it serve again. */
function judgementOf(
  job: Job,
  gaugeOff: GaugeOff | undefined,
  experience: Experience | undefined,
  like?: { judgement: Judgement; factors: Factors },
) {
  const ledger = ledgerOf(job);
  const evidence = evidenceOf(job, ledger);
  const isLike = like && groundOf(like.judgement.evidence.context) === groundOf(evidence.context);
  const factors = isLike ? like.factors : new Factors(priorsFor(evidence.context, experience));
  const posterior = posteriorOf(evidence, factors);
  const judgement: Judgement = { evidence, ledger, posterior, gaugeOff };
  return { judgement, factors };
}

/** All a judgement takes for granted, in one text: where it is the same, equal evidence has the same sums. */
const groundOf = (context: Context): string =>
  JSON.stringify([{ ...context, job: undefined }, [...context.filedIds], [...context.cloned]]);

/** Of a job with more observations than a visit has it is not told what each adds. */
const mostLeftOut = 200;

/** What each observation adds to an instrument being off: by judging that without it. */
function weightsOfGaugeOff(job: Job): Finding['evidence'] {
  if (job.observations.length > mostLeftOut) return [];
  const now = decibans(gaugeOffIn(job)?.chance ?? 0);
  return job.observations.flatMap((_, place) => {
    const rest = { ...job, observations: job.observations.filter((_other, other) => other !== place) };
    const weight = now - decibans(gaugeOffIn(rest)?.chance ?? 0);
    return Math.abs(weight) >= leastNamed ? [{ observation: place, decibans: weight }] : [];
  });
}

/** A way to say what each observation adds to a finding. */
type Weigh = (code: FindingCode, wheels: readonly Position[]) => Finding['evidence'];

/** The findings, the surest first, each with what to do about it beside the others. */
function findingsFrom(
  told: readonly Claim[],
  weigh: Weigh,
  named: Named,
  seen: (wheels: readonly Position[]) => SeenThere,
): Finding[] {
  const found = groupsOf(told, weigh, named).sort((a, b) => b.probability - a.probability);
  const holding = found.filter(({ probability }) => probability >= holds);
  return found.map((finding) => ({
    ...finding,
    action: adviceOn(finding, holding, seen(finding.wheels)),
  }));
}

/** The wheels a finding holds at stand together in one; each other wheel it may hold at stands alone. The surest first. */
function groupsOf(told: readonly Claim[], weigh: Weigh, named: Named): Omit<Finding, 'action'>[] {
  return findingCodes.flatMap((code) => {
    const same = told.filter((claim) => claim.code === code);
    const sure = same.filter(({ chance }) => chance >= holds);
    const groups = [
      ...(sure.length > 0 ? [sure] : []),
      ...same.filter(({ chance }) => chance < holds).map((claim) => [claim]),
    ];
    return groups.map((group) => {
      const wheels = inWalkingOrder([...group.flatMap(({ wheel }) => wheel ?? []), ...(named[code] ?? [])]);
      return {
        code,
        wheels,
        probability: rounded(Math.min(...group.map(({ chance }) => chance))),
        evidence: weigh(code, wheels),
      };
    });
  });
}

/** What was seen at these wheels; at all that should be, where none are named. */
const seenIn =
  ({ ledger, evidence: { context } }: Judgement) =>
  (wheels: readonly Position[]): SeenThere => {
    const scanned = wheels.length > 0 ? wheels : context.monitored;
    return {
      isHeard: scanned.every((wheel) => ledger.sensor[wheel]?.kind === 'heard'),
      isWoken: scanned.every((wheel) => ledger.sensor[wheel]),
      isGauged: wheels.every((wheel) => ledger.gauge[wheel]),
      isNearFlat: wheels.some((wheel) => isNearFlat(context.job, wheel)),
      signs: wheels.flatMap((wheel) => damageAt(context.job, wheel).signs),
    };
  };

/** Wheels that a finding about the car names all the same. */
type Named = Partial<Record<FindingCode, readonly Position[]>>;

/** A code of the wheel-speed system says whose data is down. */
const namedByCodes = ({ ledger }: Judgement): Named => ({
  'wheel-speed-sensor-fault': inWalkingOrder(
    ledger.codes.flatMap(({ seen: { about, wheel } }) => (about === 'wheel-speed' && wheel ? [wheel] : [])),
  ),
});

/** Display position to true wheel, for the wheels that have most likely moved. */
function positionsFrom({ evidence, posterior }: Judgement): Partial<Record<Position, Position>> {
  const { wheels } = evidence.context;
  const map: Partial<Record<Position, Position>> = {};
  for (const at of posterior.order()) {
    const position = wheels[at.position];
    const wheel = wheels[at.wheel];
    if (position && wheel && wheel !== position && posterior.moved(at.wheel) >= holds) map[position] = wheel;
  }
  return map;
}

/** What a screen has a worker judge. */
export interface AssessRequest {
  turn: number;
  job: Job;
  experience?: Experience | undefined;
  /** In which the reasons are worded. */
  units: Notation;
}

/** What comes back, twice: first the verdict, then the verdict with its evidence weighed. */
export interface AssessNews {
  turn: number;
  assessment: Assessment;
  reasons: Reasons;
  weighed: boolean;
}
