import type { LampForecast, LampMeaning } from '../assessment';
import { readingAt } from '../gauge';
import type { Job, Seen } from '../job';
import type { Ledger } from '../ledger';
import { isTemporarySpare, monitoredWheels, placardKPa, wheelsOf } from '../placard';
import type { Position } from '../wheel';
import { regulations } from './regulations';

/** What the telltale says. A dark lamp with its bulb check claims nothing. */
export function lampMeaning(lamp: Seen<'lamp'> | undefined): LampMeaning {
  if (!lamp) return 'none';
  switch (lamp.state) {
    case 'off':
      return lamp.bulbCheck === false ? 'not-working' : 'none';
    case 'steady':
      // Lit together with ABS or stability lamps it repeats the fault of the system it borrows its data from.
      return lamp.otherLamps && lamp.otherLamps.length > 0 ? 'malfunction' : 'low-pressure';
    case 'flash-then-steady':
      return 'malfunction';
    case 'flash-while-driving':
      return 'intermittent';
  }
}

export interface Thresholds {
  /** Lamp on at or below, kPa; unknown without placard and car's figure. */
  lowOnKPa: number | undefined;
  /** Off again at or above, kPa; unknown unless the car's own figure is. */
  lowOffKPa: number | undefined;
  /** Too high above, kPa. */
  highOnKPa: number | undefined;
}

/** Too much where the car's own figure is not known: a fifth above placard (contract of the assessment). */
const overinflatedShare = 1.2;

/** The car's own figures where known; else the regulation's share of the wheel's placard pressure. */
export function thresholdsFor(job: Job, wheel: Position): Thresholds {
  const { tpms } = job.vehicle;
  const cold = placardKPa(job, wheel);
  const bySpare = isTemporarySpare(job, wheel);
  const share = regulations[tpms.regulation ?? 'US'].lowShareOfPlacard;
  const own = bySpare ? undefined : tpms;
  return {
    lowOnKPa: own?.lowOnKPa ?? (cold === undefined ? undefined : share * cold),
    lowOffKPa: own?.lowOffKPa,
    highOnKPa: own?.highOnKPa ?? (cold === undefined ? undefined : overinflatedShare * cold),
  };
}

/**
 * The pressures at the coldest hour to come, if nothing is done, and whether the lamp will be lit:
 * a monitored tire at or below its "on" figure, or one short of "off" while the lamp is lit already.
 * Missing where no low is known, or where nothing is low but not every tire was read.
 */
export function lampTomorrow(job: Job, ledger: Ledger): LampForecast | undefined {
  const low = job.climate?.overnightLowC;
  if (low === undefined) return undefined;
  const kPa: LampForecast['kPa'] = {};
  for (const wheel of wheelsOf(job)) {
    const reading = ledger.gauge[wheel];
    const cold = reading && readingAt(job, reading.seen, low);
    if (cold !== undefined) kPa[wheel] = cold;
  }
  const lit = ledger.lamp?.seen.state === 'steady';
  const watched = job.vehicle.tpms.kind === 'direct' ? monitoredWheels(job) : wheelsOf(job);
  const willLight = watched.some((wheel) => {
    const then = kPa[wheel];
    const { lowOnKPa, lowOffKPa } = thresholdsFor(job, wheel);
    if (then === undefined || lowOnKPa === undefined) return false;
    return then <= lowOnKPa || (lit && lowOffKPa !== undefined && then < lowOffKPa);
  });
  const allRead = watched.length > 0 && watched.every((wheel) => kPa[wheel] !== undefined);
  return willLight || allRead ? { willLight, kPa } : undefined;
}
