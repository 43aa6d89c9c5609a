import { readingAt } from '../../tire/gauge';
import type { Job, Seen } from '../../job';
import type { Ledger } from '../../job/ledger';
import { wheelsOf } from '../../job/placard';
import type { Position } from '../../names/wheel';
import { watchedWheels } from './forecast';
import { litAt } from './telltale';
import { thresholdsFor } from '../../tire/thresholds';

/** What a lamp says by how it behaves. */
export const lampMeanings = ['none', 'low-pressure', 'malfunction', 'intermittent', 'not-working'] as const;
export type LampMeaning = (typeof lampMeanings)[number];

/** Whether it lights at the coldest of the night if nothing is done, and what each tire has then, kPa. */
export interface LampForecast {
  willLight: boolean;
  kPa: Partial<Record<Position, number>>;
}

export { celsiusAtPressure, forecastOf } from './forecast';
export type { Forecast, NightForecast, WheelForecast } from './forecast';
export { latchesOf, type Latch } from './latch';
export { regulations } from '../../tire/thresholds/regulations';
export { litAt, litOver, type Hysteresis } from './telltale';
export {
  basisInWords,
  overinflatedShare,
  raisedFigures,
  regulationOf,
  thresholdsFor,
} from '../../tire/thresholds';
export type { Basis, LampFigures, Thresholds } from '../../tire/thresholds';

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
  const watched = watchedWheels(job);
  const willLight = watched.some((wheel) => {
    const then = kPa[wheel];
    const { lowOnKPa, lowOffKPa } = thresholdsFor(job, wheel);
    return then !== undefined && lowOnKPa !== undefined && litAt(lit, then, { lowOnKPa, lowOffKPa });
  });
  const allRead = watched.length > 0 && watched.every((wheel) => kPa[wheel] !== undefined);
  return willLight || allRead ? { willLight, kPa } : undefined;
}
