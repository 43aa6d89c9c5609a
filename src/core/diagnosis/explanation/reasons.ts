import type { Assessment, Finding, NextTest } from '../../assessment';
import type { FindingCode } from '../../finding';
import type { Job, Reply } from '../../job';
import { lampWords } from '../../job/words';
import { thresholdsFor } from '../../lamp';
import type { Ledger } from '../../ledger';
import { ledgerOf } from '../../ledger';
import { monitoredWheels, placardKPa, wheelsOf } from '../../placard';
import { describeSlip, groupedId, slipBetween } from '../../sensor-id';
import { figure, format, pressure, temperature, type UnitChoice } from '../../units';
import { listWheels, type Position } from '../../wheel';

/** Why a finding is made, in the sentences a technician would say. */

/** One sentence that holds the readings of a finding against one another; undefined where they speak for themselves. */
export function reasonFor(
  job: Job,
  { code, wheels }: Pick<Finding, 'code' | 'wheels'>,
  positions: Assessment['positions'],
  units: UnitChoice,
): string | undefined {
  const ledger = ledgerOf(job);
  const kPa = (value: number) => figure(pressure, value, units.pressure);
  const known: Known = { job, ledger, positions, units, kPa };
  const reason = reasons[code];
  if (reason === 'readings-speak') return undefined;
  if ('ofCar' in reason) return reason.ofCar(known);
  const parts = wheels.flatMap((wheel) => reason.at(known, whatIsAt(ledger, job, wheel)) ?? []);
  if (parts.length === 0) return undefined;
  return `${parts.slice(0, mostSentences).join(' ')}${parts.length > mostSentences ? ' And so on.' : ''}`;
}

/** More would not be read. */
const mostSentences = 2;

interface Known {
  job: Job;
  ledger: Ledger;
  positions: Assessment['positions'];
  units: UnitChoice;
  kPa: (value: number) => string;
}

/** What is known at the wheel a sentence is about. */
interface AtWheel {
  wheel: Position;
  gaugeKPa: number | undefined;
  placard: number | undefined;
  scan: Ledger['sensor'][Position];
  reply: Reply | undefined;
  held: string | null | undefined;
}

function whatIsAt(ledger: Ledger, job: Job, wheel: Position): AtWheel {
  const scan = ledger.sensor[wheel];
  return {
    wheel,
    gaugeKPa: ledger.gauge[wheel]?.seen.kPa,
    placard: placardKPa(job, wheel),
    scan,
    reply: scan?.kind === 'heard' ? scan.reply : undefined,
    held: ledger.registered[wheel],
  };
}

/** A sentence for each wheel, one for the car, or none: its readings speak for themselves. */
type Reason =
  | { at: (known: Known, at: AtWheel) => string | undefined }
  | { ofCar: (known: Known) => string | undefined }
  | 'readings-speak';

const againstPlacard: Reason = {
  at: ({ kPa }, { wheel, gaugeKPa, placard }) =>
    gaugeKPa === undefined || placard === undefined
      ? undefined
      : `${wheel} has ${kPa(gaugeKPa)} where the placard asks for ${kPa(placard)}.`,
};

const noAnswer: Reason = {
  at: (_, { wheel, scan }) => {
    const tries = scan?.kind === 'silent' ? scan.tries.map(({ seen }) => seen.trigger) : [];
    const [first, ...others] = [...new Set(tries)];
    if (first === undefined) return undefined;
    return others.length === 0
      ? `${wheel} does not answer the ${first} trigger.`
      : `${wheel} answers neither ${[first, ...others].map((trigger) => `the ${trigger}`).join(' nor ')} trigger.`;
  },
};

const reasons: Record<FindingCode, Reason> = {
  'tire-low': {
    at: ({ job, kPa }, { wheel, gaugeKPa }) => {
      const { lowOnKPa } = thresholdsFor(job, wheel);
      return gaugeKPa === undefined || lowOnKPa === undefined
        ? undefined
        : `${wheel} has ${kPa(gaugeKPa)} where the lamp lights at ${kPa(lowOnKPa)}.`;
    },
  },
  'tire-underinflated': againstPlacard,
  'tire-overinflated': againstPlacard,
  'tire-hot': {
    at: ({ units }, { wheel, reply }) =>
      reply?.tempC == null
        ? undefined
        : `The sensor at ${wheel} says ${format(temperature, reply.tempC, units.temperature)}.`,
  },
  'tire-leaking': 'readings-speak',
  'temperature-drop': {
    ofCar: ({ job }) => {
      const { nowC, lastFillC } = job.climate ?? {};
      return nowC === undefined || lastFillC === undefined
        ? undefined
        : `Filled at ${Math.round(lastFillC)} °C, now ${Math.round(nowC)} °C: all are down by the same share.`;
    },
  },
  'lamp-latched': {
    at: ({ job, kPa }, { wheel, gaugeKPa }) => {
      const { lowOnKPa, lowOffKPa } = thresholdsFor(job, wheel);
      return gaugeKPa === undefined || lowOnKPa === undefined || lowOffKPa === undefined
        ? undefined
        : `${wheel} has ${kPa(gaugeKPa)}: above ${kPa(lowOnKPa)}, where the lamp lights, and short of ${kPa(lowOffKPa)}, where it goes out.`;
    },
  },
  'rolling-radius-off': 'readings-speak',
  'sensor-silent': noAnswer,
  'sensor-absent': noAnswer,
  'sensor-battery-low': 'readings-speak',
  'sensor-inaccurate': {
    at: ({ kPa }, { wheel, gaugeKPa, reply }) =>
      gaugeKPa === undefined || reply?.kPa == null
        ? undefined
        : `The sensor at ${wheel} says ${kPa(reply.kPa)} where the gauge says ${kPa(gaugeKPa)}.`,
  },
  'sensor-wrong-type': {
    at: ({ job }, { wheel, reply }) => {
      const { frequencyMHz, family } = job.vehicle.tpms;
      return (
        reply &&
        `${wheel} sends ${[reply.family, reply.frequencyMHz && `${reply.frequencyMHz} MHz`].filter(Boolean).join(' at ')}; the car hears ${[family, frequencyMHz && `${frequencyMHz} MHz`].filter(Boolean).join(' at ')}.`
      );
    },
  },
  'sensor-intermittent': 'readings-speak',
  'cross-read': 'readings-speak',
  'sensors-asleep': 'readings-speak',
  'id-not-registered': {
    at: (_, { wheel, reply, held }) =>
      reply && held !== undefined
        ? `${wheel} answers ${groupedId(reply.id)}; the car holds ${held === null ? 'none' : groupedId(held)} for it, and that ID nowhere.`
        : undefined,
  },
  'id-mistyped': {
    at: ({ ledger }, { wheel, reply, held }) => {
      const written =
        ledger.held.find(({ id }) => id !== null && reply && slipBetween(reply.id, id))?.id ?? held;
      const slip = reply && written != null ? slipBetween(reply.id, written) : undefined;
      return reply && written != null && slip
        ? `${wheel} answers ${groupedId(reply.id)}, the car holds ${groupedId(written)}: ${describeSlip(slip, reply.id, written)}.`
        : undefined;
    },
  },
  'id-duplicate': 'readings-speak',
  'positions-swapped': {
    at: ({ ledger, positions, kPa }, { wheel, gaugeKPa, held }) => {
      const there = positions?.[wheel];
      const shown = ledger.display[wheel]?.seen.kPa;
      const real = there && ledger.gauge[there]?.seen.kPa;
      if (shown != null && gaugeKPa !== undefined && real !== undefined) {
        return `The gauge says ${kPa(gaugeKPa)} at ${wheel} where the display says ${kPa(shown)}, and ${there} really has ${kPa(real)}.`;
      }
      return there && held != null
        ? `The car has ${groupedId(held)} at ${wheel}; it answers at ${there}.`
        : undefined;
    },
  },
  'other-set-registered': {
    ofCar: () => 'None of the sensors on the car is registered; what is registered is a set on file.',
  },
  'receiver-fault': {
    ofCar: () =>
      'The sensors answer the tool and are registered, and the car hears none of them on the road.',
  },
  'system-disabled': { ofCar: () => 'The lamp did not light for its check at ignition on.' },
  'waiting-for-drive': { ofCar: () => 'The relearn is done, and the car has not heard every sensor since.' },
  'supply-voltage-low': {
    ofCar: ({ ledger: { voltage } }) => voltage && `${voltage.seen.volts.toFixed(2)} V with the engine off.`,
  },
  'baseline-not-set': {
    ofCar: ({ ledger: { lamp } }) =>
      lamp &&
      `Lamp ${lampWords[lamp.seen.state]}, and no storing on record since tires or pressures changed.`,
  },
  'wheel-speed-sensor-fault': 'readings-speak',
  'no-fault': {
    ofCar: ({ job, units }) =>
      `Every tire, every sensor and the car were looked at: ${format(pressure, placardKPa(job, 'LF') ?? 0, units.pressure)} and all in place.`,
  },
};

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
