import type { z } from 'zod';
import { aliveAfter, type LifeCurve } from '../../sensor/life';
import { findingsThatHold, type Assessment } from '../../judgement/assessment';
import { recordOf } from '../../catalogue/finding';
import { atWheel, type Job } from '../../job';
import { ledgerOf, type Ledger } from '../../job/ledger';
import { monitoredWheels } from '../../job/placard';
import { programmedFor } from '../../job/car-write';
import { inWalkingOrder, roadWheels, type Position } from '../../names/wheel';
import { figures } from './figures';
import { costsOf, worthFrom, type Costs, type Prices } from './prices';
import type { replacementSchema } from '../../job/schemas/replacement';

/** What was chosen, as it is kept with the job. Its schema is in `./schema`. */
export type Replacement = z.infer<typeof replacementSchema>;

/** A sensor in its wheel, and what is to be expected of it. */
export interface WornSensor {
  wheel: Position;
  /** A finding says that it has to be replaced, or its own battery flag does. */
  atFault: boolean;
  /** Years; `car`: nobody knows its own age, it is at most as old as the car. */
  age: { years: number; from: 'record' | 'car' } | undefined;
  /** The chance, 0 to 1, that its battery ends before the tire is off the next time; undefined where no age is known. */
  endsBeforeNextTires: number | undefined;
  /** The chance, 0 to 1, that it ends within a year. */
  endsWithinYear: number | undefined;
  /** Its tire comes off today anyway, so that replacing it costs the part alone. */
  tireOff: boolean;
  /** From this chance on that it ends in time it is worth replacing now. */
  worthFrom: number;
  /** Where the shop said what it costs. */
  costs: Costs | undefined;
}

/** One, some or all: what is worth replacing while the car is here. */
export interface Advice {
  sensors: WornSensor[];
  /** In walking order. Those at fault, and those not worth waiting for. */
  wheels: Position[];
  /** `none`: nothing is at fault and nothing is worn. `set`: all of them, though not all are at fault. */
  choice: 'none' | 'one' | 'some' | 'set';
}

/**
 * Which sensors are worth replacing. One at fault always; of the others those that probably end before their tire is off
 * again, where it is off now, and only those that end soon where it is not.
 */
export function adviseReplacement(
  job: Job,
  {
    assessment,
    tiresOff,
    year,
    curve,
    prices,
  }: {
    assessment: Assessment;
    tiresOff: boolean;
    year: number;
    /** The shop's own, where it has one. */
    curve?: LifeCurve | undefined;
    /** Likewise. */
    prices?: Prices | undefined;
  },
): Advice {
  const sensors = wornSensors(job, { assessment, tiresOff, year, curve, prices });
  const worth = sensors.filter((sensor) => sensor.atFault || isWorn(sensor));
  const wheels = worth.map(({ wheel }) => wheel);
  const onRoad = sensors.filter(({ wheel }) => isOnRoad(wheel)).every(({ wheel }) => wheels.includes(wheel));
  const all = onRoad && worth.length > 1;
  const some = wheels.length === 1 ? 'one' : 'some';
  return { sensors, wheels, choice: wheels.length === 0 ? 'none' : all ? 'set' : some };
}

const isOnRoad = (wheel: Position): boolean => (roadWheels as readonly Position[]).includes(wheel);

function isWorn({
  tireOff,
  age,
  endsBeforeNextTires = 0,
  endsWithinYear = 0,
  worthFrom: least,
}: WornSensor): boolean {
  if (tireOff) return endsBeforeNextTires >= least;
  // No tire is taken off for an age that is only that of the car: the sensor may be a newer one.
  return age?.from === 'record' && endsWithinYear >= least;
}

function wornSensors(
  job: Job,
  { assessment, tiresOff, year, curve, prices }: Parameters<typeof adviseReplacement>[1],
): WornSensor[] {
  const ledger = ledgerOf(job);
  const faulty = wheelsAtFault(assessment);
  return monitoredWheels(job).map((wheel) => {
    const age = ageOf(job, wheel, year);
    const atFault = faulty.includes(wheel) || saysBatteryLow(ledger, wheel);
    const tireOff = tiresOff || atFault;
    return {
      wheel,
      atFault,
      age,
      endsBeforeNextTires: age && endsWithin(age.years, figures.yearsBetweenTires.value, curve),
      endsWithinYear: age && endsWithin(age.years, 1, curve),
      tireOff,
      worthFrom: worthFrom(prices, tireOff),
      costs: prices && costsOf(prices, tireOff),
    };
  });
}

/** Wheels with a finding that holds and that a new sensor puts right. */
const wheelsAtFault = (assessment: Assessment): Position[] =>
  inWalkingOrder(
    findingsThatHold(assessment)
      .filter(({ code }) => recordOf(code).part === 'sensor' && recordOf(code).remedy === 'part')
      .flatMap(({ wheels }) => wheels),
  );

const saysBatteryLow = ({ sensor }: Ledger, wheel: Position): boolean => {
  const scan = sensor[wheel];
  return scan?.kind === 'heard' && scan.reply.battery === 'low';
};

/** The record of the very sensor, else of the wheel; else it is at most as old as the car. */
function ageOf(job: Job, wheel: Position, year: number): WornSensor['age'] {
  if (programmedFor(job, wheel)) return { years: 0, from: 'record' };
  const years = job.sensors?.find((sensor) => sensor.wheel === wheel)?.ageYears;
  if (years !== undefined) return { years, from: 'record' };
  const { modelYear } = job.vehicle;
  return modelYear === undefined ? undefined : { years: Math.max(0, year - modelYear), from: 'car' };
}

/** The chance that a battery that has lasted `years` ends within so many more. */
const endsWithin = (years: number, more: number, curve: LifeCurve | undefined): number =>
  1 - aliveAfter(years + more, curve) / aliveAfter(years, curve);

/** The next thing to do about what was chosen. */
type ReplacementStep = { do: 'program' | 'service' | 'wake'; wheel: Position };

/**
 * Each chosen wheel in turn: its sensor programmed (one that comes ready is only fitted), fitted by the list, and woken
 * in its wheel. Undefined where nothing was chosen or all of it is done.
 */
export function nextReplacementStep(job: Job): ReplacementStep | undefined {
  const { replacement } = job;
  if (!replacement) return undefined;
  const chosenMs = Date.parse(replacement.at);
  for (const wheel of inWalkingOrder(replacement.wheels)) {
    const fitted = job.sensorServices?.findLast((service) => service.wheel === wheel);
    const fittedMs = fitted && !fitted.declined ? Date.parse(fitted.at) : Number.NEGATIVE_INFINITY;
    const write = programmedFor(job, wheel);
    const programmedMs = write ? Date.parse(write.readBackAt ?? write.askedAt) : Number.NEGATIVE_INFINITY;
    if (fitted?.declined && Date.parse(fitted.at) >= chosenMs) continue;
    if (fittedMs < chosenMs)
      return programmedMs < chosenMs ? { do: 'program', wheel } : { do: 'service', wheel };
    const heardSince = atWheel(job, 'activation', wheel).some(({ seen }) => Date.parse(seen.at) >= fittedMs);
    if (!heardSince) return { do: 'wake', wheel };
  }
  return undefined;
}
