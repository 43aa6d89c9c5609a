import { wrongKPa } from '../core/sensor/agreement';
import type { Finding } from '../core/judgement/assessment';
import { model } from '../core/judgement/diagnosis/model';
import { readingAt } from '../core/tire/gauge';
import type { FindingCode } from '../core/catalogue/finding';
import type { Job } from '../core/job';
import { overinflatedShare, regulations } from '../core/car/lamp';
import { ledgerOf } from '../core/job/ledger';
import { placardKPa, placardToleranceKPa } from '../core/job/placard';
import { compareRegistration } from '../core/car/registration';
import { roadWheels, type Position } from '../core/names/wheel';
import type { TrueCar } from './car';
import type { Chance } from './chance';
import { doTest } from './look';
import type { Test } from '../core/catalogue/tests';

/** Two ways to work without the engine, on the same cars. */

type Claimed = Pick<Finding, 'code' | 'wheels'>;

/**
 * The round as it is taught, done in full whatever turns up: look, gauge and wake every wheel, a silent one
 * twice, read the car; then judged by the patterns of the trade, each reading taken at its word.
 */
export function checklistOn(
  car: TrueCar,
  start: Job,
  chance: Chance,
): { findings: Claimed[]; minutes: number; job: Job } {
  let job = start;
  // The lamp was looked at when the car was booked in, for either way of working.
  let minutes = 0;
  let n = 0;
  const add = (test: Test, wheel?: Position) => {
    n += 1;
    minutes += model.minutes[test];
    car.job = job;
    job = { ...job, observations: [...job.observations, ...doTest(car, test, wheel, n, chance)] };
  };
  for (const wheel of roadWheels) add('visual', wheel);
  for (const wheel of roadWheels) add('gauge', wheel);
  if (car.kind === 'direct') {
    for (const wheel of roadWheels) add('activation', wheel);
    for (const wheel of roadWheels)
      if (ledgerOf(job).sensor[wheel]?.kind === 'silent') add('activation', wheel);
    add('registry');
  } else add('wheelspeed');
  return { findings: byPattern(job), minutes, job };
}

function byPattern(job: Job): Claimed[] {
  const ledger = ledgerOf(job);
  const { tpms } = job.vehicle;
  const on = (code: FindingCode, is: (wheel: Position) => boolean): Claimed[] => {
    const wheels = roadWheels.filter(is);
    return wheels.length > 0 ? [{ code, wheels }] : [];
  };
  const placard = (wheel: Position) => placardKPa(job, wheel) ?? 0;
  const low = (wheel: Position) => tpms.lowOnKPa ?? regulations.US.lowShareOfPlacard * placard(wheel);
  const kPa = (wheel: Position) => {
    const read = ledger.gauge[wheel]?.seen;
    // A warm tire is read as what it is cold, where its temperature is known.
    return read ? (readingAt(job, read, job.climate?.nowC ?? model.usualNowC) ?? read.kPa) : placard(wheel);
  };
  const scan = (wheel: Position) => ledger.sensor[wheel];
  const reply = (wheel: Position) => {
    const found = scan(wheel);
    return found?.kind === 'heard' ? found.reply : undefined;
  };
  const mismatches = compareRegistration(job, ledger)?.mismatches ?? [];
  const differs = (kind: string) => (wheel: Position) =>
    mismatches.some((found) => found.wheel === wheel && found.kind === kind);
  const lit = ledger.lamp?.seen.state;
  const airIsGood = roadWheels.every((wheel) => kPa(wheel) >= placard(wheel) - placardToleranceKPa);
  return [
    ...(ledger.lamp?.seen.bulbCheck === false ? [{ code: 'system-disabled' as const, wheels: [] }] : []),
    ...(ledger.lamp?.seen.otherLamps?.length
      ? [{ code: 'wheel-speed-sensor-fault' as const, wheels: [] }]
      : []),
    ...on('tire-low', (wheel) => kPa(wheel) <= low(wheel)),
    ...on('sensor-silent', (wheel) => scan(wheel)?.kind === 'silent'),
    ...on(
      'sensor-wrong-type',
      (wheel) => reply(wheel)?.family !== undefined && reply(wheel)?.family !== tpms.family,
    ),
    ...on('id-mistyped', differs('mistyped')),
    ...on('id-not-registered', differs('absent')),
    ...on('positions-swapped', differs('elsewhere')),
    ...on('sensor-battery-low', (wheel) => reply(wheel)?.battery === 'low'),
    ...on('sensor-inaccurate', (wheel) => {
      const read = ledger.gauge[wheel]?.seen.kPa;
      return read !== undefined && Math.abs((reply(wheel)?.kPa ?? read) - read) > wrongKPa;
    }),
    ...on(
      'tire-overinflated',
      (wheel) => kPa(wheel) > (tpms.highOnKPa ?? overinflatedShare * placard(wheel)),
    ),
    ...(tpms.kind === 'indirect' && lit === 'steady' && airIsGood
      ? [{ code: 'baseline-not-set' as const, wheels: [] }]
      : []),
    ...on(
      'tire-underinflated',
      (wheel) => kPa(wheel) > low(wheel) && kPa(wheel) < placard(wheel) - placardToleranceKPa,
    ),
  ];
}

/** A sensor sold for a flashing lamp, air for a steady one: nothing measured. The wheel is anybody's guess. */
export function replaceOnLamp(start: Job): { findings: Claimed[]; minutes: number } {
  const state = ledgerOf(start).lamp?.seen.state;
  const findings: Claimed[] =
    state === 'flash-then-steady' || state === 'flash-while-driving'
      ? [{ code: 'sensor-silent', wheels: ['RR'] }]
      : state === 'steady'
        ? [{ code: 'tire-low', wheels: ['LF'] }]
        : [];
  return { findings, minutes: 0 };
}
