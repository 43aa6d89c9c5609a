import type { Evidence as Weight } from '../assessment';
import { wheelFindings, type FindingCode } from '../finding';
import type { Job, Observation } from '../job';
import { ledgerOf, type Ledger } from '../ledger';
import type { Position } from '../wheel';
import { posteriorAfter, type Change } from './after-change';
import type { Cells } from './cells';
import { changesIn } from './changes';
import { chanceOf, type Judgement } from './claims';
import { carEvidence, positionEvidence, wheelEvidence, type Evidence, type WheelEvidence } from './evidence';
import { posteriorOf } from './posterior';
import type { Priors } from './priors';
import { allRows, wantedRows, type Wanted } from './states';

/** The odds of a probability in decibans: ten times their decimal logarithm. Kept within ±50: no evidence is endless. */
export function decibans(probability: number): number {
  const bounded = Math.min(1 - 1e-5, Math.max(1e-5, probability));
  return 10 * Math.log10(bounded / (1 - bounded));
}

/** An observation that moves a finding by less than this, decibans, is not worth naming: an eighth on the odds. */
const leastNamed = 0.5;

/**
 * How much each observation speaks for or against a finding: by how many decibans its odds would be other
 * if this one observation had not been made, and all the others had.
 */
export function weigherOf(
  job: Job,
  judgement: Judgement,
  priors: Priors,
  cells: Cells,
  told: readonly FindingCode[],
): (code: FindingCode, wheels: readonly Position[]) => Weight[] {
  const wanted = wantedRows(
    wheelFindings.filter((code) => told.includes(code) || told.includes('sensors-asleep')),
    told.includes('no-fault'),
  );
  let others: Judgement[] | undefined;
  return (code, wheels) => {
    others ??= job.observations.map((seen, index) => {
      const rest: Job = { ...job, observations: job.observations.filter((_, other) => other !== index) };
      return judgeChange(rest, seen, judgement, priors, cells, wanted);
    });
    const now = decibans(leastChance(judgement, code, wheels));
    return others.flatMap((without, observation) => {
      const weight = now - decibans(leastChance(without, code, wheels));
      return Math.abs(weight) >= leastNamed ? [{ observation, decibans: weight }] : [];
    });
  };
}

/** The least of the chances a finding has at these wheels; of the car where none are named. */
const leastChance = (judgement: Judgement, code: FindingCode, wheels: readonly Position[]): number =>
  wheels.length === 0
    ? chanceOf(judgement, code)
    : Math.min(...wheels.map((wheel) => chanceOf(judgement, code, wheel)));

/** The judgement of the job with one observation more or less; what does not rest on it is taken over as it is. */
export function judgeChange(
  job: Job,
  changed: Observation,
  before: Judgement,
  priors: Priors,
  cells: Cells,
  wanted: Wanted = allRows,
): Judgement {
  // What the supply was says nothing of any fault the posterior knows.
  if (changed.kind === 'voltage') return { ...before, ledger: ledgerOf(job) };
  const { evidence, ledger, change } = withChange(job, changed, before.evidence, before.ledger);
  const posterior = change
    ? posteriorAfter(change, before.posterior.account, evidence, priors, cells, wanted)
    : posteriorOf(evidence, priors, cells, wanted);
  return { evidence, ledger, posterior };
}

/** The evidence after one observation was put in or taken out of the job; how little of it changed, where it is little. */
function withChange(
  job: Job,
  changed: Observation,
  evidence: Evidence,
  before: Ledger,
): { evidence: Evidence; ledger: Ledger; change?: Change } {
  const { context } = evidence;
  switch (changed.kind) {
    case 'gauge':
    case 'activation':
    case 'visual':
    case 'wheelspeed': {
      const wheels = evidence.wheels.map((old) => {
        if (old.wheel !== changed.wheel) return old;
        const now = wheelEvidence(context, job, old.wheel);
        return changed.kind === 'activation' ? now : withSameReplies(now, old);
      });
      const wheel = context.wheels.indexOf(changed.wheel);
      return { evidence: { ...evidence, wheels }, ledger: before, change: { wheel, positions: [] } };
    }
    case 'live':
    case 'display': {
      const ledger = before;
      const changes = changesIn(job, ledger);
      const at = evidence.positions.findIndex(({ position }) => position === changed.wheel);
      const positions = evidence.positions.map((old, place) =>
        place === at ? positionEvidence(context, job, ledger, changes, old.position) : old,
      );
      return { evidence: { ...evidence, positions }, ledger, change: { positions: at < 0 ? [] : [at] } };
    }
    case 'lamp':
    case 'relearn':
    case 'reception':
    case 'voltage':
    case 'dtc':
    case 'registry': {
      const ledger = ledgerOf(job);
      const changes = changesIn(job, ledger);
      const positions =
        changed.kind === 'lamp' || changed.kind === 'reception' || changed.kind === 'voltage'
          ? evidence.positions
          : evidence.positions.map((old) => {
              const now = positionEvidence(context, job, ledger, changes, old.position);
              return JSON.stringify(now) === JSON.stringify(old) ? old : now;
            });
      const car = carEvidence(job, ledger, changes);
      const reached = positions.flatMap((now, at) => (now === evidence.positions[at] ? [] : [at]));
      return {
        evidence: { ...evidence, positions, car },
        ledger,
        ...(changed.kind !== 'reception' && { change: { positions: reached } }),
      };
    }
  }
}

/** What has not changed stays the same thing: what rests on it need not be worked out again. Only the pressures may have. */
function withSameReplies(now: WheelEvidence, before: WheelEvidence): WheelEvidence {
  const isSame =
    now.replies.length === before.replies.length &&
    now.replies.every(({ kPa }, place) => kPa === before.replies[place]?.kPa);
  return isSame ? { ...now, replies: before.replies } : now;
}
