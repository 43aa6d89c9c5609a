import type { Assessment, Finding, NextTest } from '../assessment';
import type { Job } from '../job';
import { lampWords } from '../job/words';
import { thresholdsFor } from '../lamp';
import type { Ledger } from '../ledger';
import { ledgerOf } from '../ledger';
import { monitoredWheels, placardKPa, wheelsOf } from '../placard';
import { describeSlip, groupedId, slipBetween } from '../sensor-id';
import { figure, format, pressure, type UnitChoice } from '../units';
import { listWheels, type Position } from '../wheel';

/** Why a finding is made, in the sentences a technician would say. */

/** One sentence that holds the readings of a finding against one another; undefined where they speak for themselves. */
export function reasonFor(
  job: Job,
  { code, wheels }: Pick<Finding, 'code' | 'wheels'>,
  positions: Assessment['positions'],
  units: UnitChoice,
): string | undefined {
  const ledger = ledgerOf(job);
  const parts = wheels.flatMap((wheel) => sentenceAt(job, ledger, code, wheel, positions, units) ?? []);
  if (parts.length > 0)
    return `${parts.slice(0, mostSentences).join(' ')}${parts.length > mostSentences ? ' And so on.' : ''}`;
  return ofCar(job, ledger, code, units);
}

/** More would not be read. */
const mostSentences = 2;

function sentenceAt(
  job: Job,
  ledger: Ledger,
  code: Finding['code'],
  wheel: Position,
  positions: Assessment['positions'],
  units: UnitChoice,
): string | undefined {
  const kPa = (value: number) => figure(pressure, value, units.pressure);
  const gauge = ledger.gauge[wheel]?.seen.kPa;
  const scan = ledger.sensor[wheel];
  const reply = scan?.kind === 'heard' ? scan.reply : undefined;
  const held = ledger.registered[wheel];
  const placard = placardKPa(job, wheel);
  switch (code) {
    case 'tire-low': {
      const { lowOnKPa } = thresholdsFor(job, wheel);
      return gauge === undefined || lowOnKPa === undefined
        ? undefined
        : `${wheel} has ${kPa(gauge)} where the lamp lights at ${kPa(lowOnKPa)}.`;
    }
    case 'tire-underinflated':
    case 'tire-overinflated':
      return gauge === undefined || placard === undefined
        ? undefined
        : `${wheel} has ${kPa(gauge)} where the placard asks for ${kPa(placard)}.`;
    case 'lamp-latched': {
      const { lowOnKPa, lowOffKPa } = thresholdsFor(job, wheel);
      return gauge === undefined || lowOnKPa === undefined || lowOffKPa === undefined
        ? undefined
        : `${wheel} has ${kPa(gauge)}: above ${kPa(lowOnKPa)}, where the lamp lights, and short of ${kPa(lowOffKPa)}, where it goes out.`;
    }
    case 'sensor-inaccurate':
      return gauge === undefined || reply?.kPa == null
        ? undefined
        : `The sensor at ${wheel} says ${kPa(reply.kPa)} where the gauge says ${kPa(gauge)}.`;
    case 'sensor-silent':
    case 'sensor-absent': {
      const tries = scan?.kind === 'silent' ? scan.tries.map(({ seen }) => seen.trigger) : [];
      const [first, ...others] = [...new Set(tries)];
      if (first === undefined) return undefined;
      return others.length === 0
        ? `${wheel} does not answer the ${first} trigger.`
        : `${wheel} answers neither ${[first, ...others].map((trigger) => `the ${trigger}`).join(' nor ')} trigger.`;
    }
    case 'sensor-wrong-type': {
      const { frequencyMHz, family } = job.vehicle.tpms;
      return (
        reply &&
        `${wheel} sends ${[reply.family, reply.frequencyMHz && `${reply.frequencyMHz} MHz`].filter(Boolean).join(' at ')}; the car hears ${[family, frequencyMHz && `${frequencyMHz} MHz`].filter(Boolean).join(' at ')}.`
      );
    }
    case 'id-mistyped': {
      const written =
        ledger.registry?.seen.entries.find(({ id }) => id !== null && reply && slipBetween(reply.id, id))
          ?.id ?? held;
      const slip = reply && written != null ? slipBetween(reply.id, written) : undefined;
      return reply && written != null && slip
        ? `${wheel} answers ${groupedId(reply.id)}, the car holds ${groupedId(written)}: ${describeSlip(slip, reply.id, written)}.`
        : undefined;
    }
    case 'id-not-registered':
      return reply && held !== undefined
        ? `${wheel} answers ${groupedId(reply.id)}; the car holds ${held === null ? 'none' : groupedId(held)} for it, and that ID nowhere.`
        : undefined;
    case 'positions-swapped':
      return swapSentence(ledger, wheel, positions, kPa);
    default:
      return undefined;
  }
}

/** "The gauge says 231 at LF where the display says 171, and LR really has 170." */
function swapSentence(
  ledger: Ledger,
  wheel: Position,
  positions: Assessment['positions'],
  kPa: (value: number) => string,
): string | undefined {
  const there = positions?.[wheel];
  const shown = ledger.display[wheel]?.seen.kPa;
  const here = ledger.gauge[wheel]?.seen.kPa;
  const real = there && ledger.gauge[there]?.seen.kPa;
  if (shown != null && here !== undefined && real !== undefined) {
    return `The gauge says ${kPa(here)} at ${wheel} where the display says ${kPa(shown)}, and ${there} really has ${kPa(real)}.`;
  }
  const held = ledger.registered[wheel];
  return there && held != null
    ? `The car has ${groupedId(held)} at ${wheel}; it answers at ${there}.`
    : undefined;
}

function ofCar(job: Job, ledger: Ledger, code: Finding['code'], units: UnitChoice): string | undefined {
  const lamp = ledger.lamp?.seen;
  switch (code) {
    case 'temperature-drop': {
      const { nowC, lastFillC } = job.climate ?? {};
      return nowC === undefined || lastFillC === undefined
        ? undefined
        : `Filled at ${Math.round(lastFillC)} °C, now ${Math.round(nowC)} °C: all are down by the same share.`;
    }
    case 'receiver-fault':
      return 'The sensors answer the tool and are registered, and the car hears none of them on the road.';
    case 'other-set-registered':
      return 'None of the sensors on the car is registered; what is registered is a set on file.';
    case 'system-disabled':
      return 'The lamp did not light for its check at ignition on.';
    case 'supply-voltage-low':
      return ledger.voltage && `${ledger.voltage.seen.volts.toFixed(2)} V with the engine off.`;
    case 'waiting-for-drive':
      return 'The relearn is done, and the car has not heard every sensor since.';
    case 'baseline-not-set':
      return (
        lamp && `Lamp ${lampWords[lamp.state]}, and no storing on record since tires or pressures changed.`
      );
    case 'no-fault':
      return `Every tire, every sensor and the car were looked at: ${format(pressure, placardKPa(job, 'LF') ?? 0, units.pressure)} and all in place.`;
    default:
      return undefined;
  }
}

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
    ...(monitored.length > 0 && !ledger.registry ? ['what the car holds'] : []),
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

/** A test in words: "wake RR again". */
export function testWords({ test, wheel }: Pick<NextTest, 'test' | 'wheel'>): string {
  switch (test) {
    case 'gauge':
      return `gauge ${wheel ?? ''}`.trim();
    case 'activation':
      return `wake ${wheel ?? ''} with another trigger`;
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
      return 'store the reference and drive';
  }
}
