import { findingCodes, type Assessment, type Finding, type NextTest } from '../assessment';
import { targetsFor } from '../filling';
import type { Job } from '../job';
import { lampMeaning, lampTomorrow } from '../lamp';
import { compareRegistration } from '../registration';
import { inWalkingOrder } from '../wheel';
import { wording } from './actions';
import { certainties, decibans } from './certainty';
import { swapById, swapByPressure } from './rules/positions';
import { statementsOn } from './rules';
import { sceneOf, type Scene, type Statement } from './scene';
import { minutesFor } from './tests';

export { titleOf, toRead, wording } from './actions';

/** What follows from a job. Pure: the same job gives the same assessment. */
export function assess(job: Job): Assessment {
  const scene = sceneOf(job);
  const tomorrow = lampTomorrow(job, scene.ledger);
  const registration = compareRegistration(job, scene.ledger);
  const swap = swapById(scene) ?? swapByPressure(scene);
  return {
    format: 'hacienda.assessment/1',
    findings: findingsFrom(statementsOn(scene)),
    targets: targetsFor(job, scene.ledger),
    lamp: { meaning: lampMeaning(scene.ledger.lamp?.seen), ...(tomorrow && { tomorrow }) },
    ...(registration && { registration }),
    ...(swap && Object.keys(swap.map).length > 0 && { positions: swap.map }),
    nextTests: nextTests(scene),
  };
}

/** One finding per code, with all its wheels; the surest first, then in the order of the vocabulary. */
function findingsFrom(statements: Statement[]): Finding[] {
  return findingCodes
    .flatMap((code): Finding[] => {
      const same = statements.filter((statement) => statement.code === code);
      if (same.length === 0) return [];
      const probability = Math.min(...same.map(({ certainty }) => certainties[certainty]));
      const because = [...new Set(same.flatMap((statement) => statement.because))];
      // A rule does not weigh: what it is sure of is shared out evenly over what it rests on.
      const share = decibans(probability) / because.length;
      return [
        {
          code,
          wheels: inWalkingOrder(same.flatMap(({ wheel }) => wheel ?? [])),
          probability,
          evidence: because.map((observation) => ({ observation, decibans: share })),
          action: wording[code].action,
        },
      ];
    })
    .sort((a, b) => b.probability - a.probability);
}

/**
 * What has not been looked at, cheapest first. Without a probability model each is taken for one
 * open yes-or-no question: one bit.
 */
function nextTests({ job, ledger, wheels, monitored }: Scene): NextTest[] {
  const open: Omit<NextTest, 'minutes' | 'bits'>[] = [
    ...(ledger.lamp ? [] : [{ test: 'lamp' as const }]),
    ...wheels.filter((wheel) => !ledger.gauge[wheel]).map((wheel) => ({ test: 'gauge' as const, wheel })),
    ...monitored
      .filter((wheel) => ledger.sensor[wheel]?.kind !== 'heard')
      .map((wheel) => ({ test: 'activation' as const, wheel })),
    ...(job.vehicle.tpms.kind !== 'none' && !ledger.registry && monitored.length > 0
      ? [{ test: 'registry' as const }]
      : []),
    ...(monitored.some((wheel) => !ledger.live[wheel]?.seen.kPa) ? [{ test: 'drive' as const }] : []),
  ];
  return open
    .map((test) => ({ ...test, minutes: minutesFor[test.test], bits: 1 }))
    .sort((a, b) => a.minutes - b.minutes);
}
