import type { Assessment, Finding, NextTest } from '../../assessment';
import type { Job } from '../../../job';
import { ledgerOf } from '../../../job/ledger';
import { monitoredWheels, wheelsOf } from '../../../job/placard';
import { isWhollyRead } from '../../../car/registration';
import { listWheels, type Position } from '../../../names/wheel';

/** What was not looked at, and what is left to check. */

/** What has not been looked at, so nothing is said of it. */
export function notKnown(job: Job): string[] {
  const ledger = ledgerOf(job);
  const ungauged = wheelsOf(job).filter((wheel) => !ledger.gauge[wheel]);
  const monitored = monitoredWheels(job);
  const unheard = monitored.filter((wheel) => !ledger.sensor[wheel]);
  return [
    ...(ledger.lamp ? [] : ['the lamp']),
    ...(ungauged.length > 0 ? [`the pressure of ${listWheels(ungauged)}`] : []),
    ...(unheard.length > 0 ? [`the sensor of ${listWheels(unheard)}`] : []),
    ...(!isWhollyRead(job, ledger) ? ['what the car holds'] : []),
  ];
}

/** The tests whose answers could overturn a finding, or confirm it, the cheapest knowledge first. */
export const couldChange = (
  { nextTests }: Pick<Assessment, 'nextTests'>,
  finding: Pick<Finding, 'code' | 'wheels'>,
): NextTest[] =>
  nextTests.filter(
    ({ about, wheel }) =>
      about?.code === finding.code &&
      (finding.wheels.length === 0 || !wheel || finding.wheels.includes(wheel)),
  );

/** What came of waking a wheel before, where it was tried. */
export const triedBefore = (job: Job, wheel: Position | undefined): 'heard' | 'silent' | undefined => {
  const scan = wheel && ledgerOf(job).sensor[wheel];
  return scan && (scan.kind === 'silent' ? 'silent' : 'heard');
};

/** A test in words: "wake RR", "wake RR with another trigger", by what came of it before. */
export function testWords(
  { test, wheel }: Pick<NextTest, 'test' | 'wheel'>,
  before?: 'heard' | 'silent',
): string {
  switch (test) {
    case 'gauge':
      return `gauge ${wheel ?? ''}`.trim();
    case 'activation':
      return ['wake', wheel, before === 'silent' ? 'with another trigger' : before && 'once more']
        .filter(Boolean)
        .join(' ');
    case 'visual':
      return `look at ${wheel ?? 'the wheel'}: tread, sidewall, stem`;
    case 'registry':
      return 'read what the car holds';
    case 'lamp':
      return 'look at the lamp';
    case 'display':
      return 'note what the display shows';
    case 'drive':
      return 'drive above wake speed and read the car';
    case 'reception':
      return 'log reception over a drive';
    case 'shift':
      return 'take 25 kPa off one tire and see which figure moves';
    case 'wheelspeed':
      return 'compare wheel speeds on a straight drive';
    case 'baseline':
      return 'reset the system and drive';
  }
}
