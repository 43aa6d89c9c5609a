import { tireCelsius } from '../../tire/gauge';
import { altitudeOf, type Job } from '../../job';
import type { Ledger } from '../../job/ledger';
import type { Target } from '../../tire/filling';
import { monitoredWheels, wheelsOf } from '../../job/placard';
import { atmosphericKPa, atTemperature, kelvin, type TirePressure } from '../../measure/pressure';
import { nightsOf, type Hour } from '../../measure/weather';
import type { Position } from '../../names/wheel';
import { litAt } from './telltale';
import { thresholdsFor, type Thresholds } from '../../tire/thresholds';

/** What the lamp does from now on, wheel by wheel and night by night. */
export interface Forecast {
  /** Lit at the start: seen steady, and after a fill still held by some wheel. */
  litNow: boolean;
  wheels: WheelForecast[];
  nights: NightForecast[];
  /** Each time it lights or goes out, in order. */
  changes: { at: string; lit: boolean; wheels: Position[] }[];
}

export interface WheelForecast {
  wheel: Position;
  /** The air in it: enough to take it to any temperature. */
  air: TirePressure;
  thresholds: Thresholds;
  /** The outdoor temperature at which this wheel lights the lamp, °C. */
  lightsAtC: number;
  /** At the coldest hour to come. */
  coldest: { celsius: number; kPa: number; marginKPa: number } | undefined;
}

export interface NightForecast {
  evening: string;
  coldestC: number;
  at: string;
  lit: boolean;
  /** The wheel nearest to its "on" figure, and how far above it, kPa; negative below. */
  nearest: { wheel: Position; kPa: number; marginKPa: number } | undefined;
}

/** The outdoor temperature in °C at which a tire has come to a gauge pressure in kPa. */
export function celsiusAtPressure({ kPa, celsius, altitudeM }: TirePressure, wantedKPa: number): number {
  const ambient = atmosphericKPa(altitudeM);
  return (kelvin(celsius) * (wantedKPa + ambient)) / (kPa + ambient) - kelvin(0);
}

/** The wheels that can light the lamp. */
export const watchedWheels = (job: Job): Position[] =>
  job.vehicle.tpms.kind === 'direct' ? monitoredWheels(job) : wheelsOf(job);

/**
 * The lamp over the hours to come, from the air in the tires as it was read or, with `targets`, as it will
 * be once they are filled. Wheels without a usable reading or figure are left out.
 */
export function forecastOf(
  job: Job,
  ledger: Ledger,
  hours: readonly Hour[],
  targets?: readonly Target[],
): Forecast {
  const nights = nightsOf(hours);
  const coldestC = Math.min(...nights.map(({ coldest }) => coldest.celsius));
  const wheels = watchedWheels(job).flatMap((wheel): WheelForecast[] => {
    const air = airIn(job, ledger, wheel, targets);
    const thresholds = thresholdsFor(job, wheel);
    const { lowOnKPa } = thresholds;
    if (!air || lowOnKPa === undefined) return [];
    const kPa = Number.isFinite(coldestC) ? atTemperature(air, coldestC) : undefined;
    return [
      {
        wheel,
        air,
        thresholds,
        lightsAtC: celsiusAtPressure(air, lowOnKPa),
        coldest: kPa === undefined ? undefined : { celsius: coldestC, kPa, marginKPa: kPa - lowOnKPa },
      },
    ];
  });
  const seenLit = ledger.lamp?.seen.state === 'steady';
  const lit = new Map(
    wheels.map(({ wheel, air, thresholds }) => [wheel, holds(seenLit, air.kPa, thresholds)]),
  );
  const litNow = [...lit.values()].some(Boolean);
  const changes: Forecast['changes'] = [];
  const litAtHour = new Map<string, boolean>();
  let was = litNow;
  for (const { at, celsius } of hours) {
    for (const { wheel, air, thresholds } of wheels) {
      lit.set(wheel, holds(lit.get(wheel) ?? false, atTemperature(air, celsius), thresholds));
    }
    const by = wheels.map(({ wheel }) => wheel).filter((wheel) => lit.get(wheel));
    const now = by.length > 0;
    litAtHour.set(at, now);
    if (now !== was) changes.push({ at, lit: now, wheels: by });
    was = now;
  }
  return {
    litNow,
    wheels,
    changes,
    nights: nights.map(({ evening, coldest }) => ({
      evening,
      coldestC: coldest.celsius,
      at: coldest.at,
      lit: litAtHour.get(coldest.at) ?? false,
      nearest: nearestTo(wheels, coldest.celsius),
    })),
  };
}

const holds = (was: boolean, kPa: number, { lowOnKPa, lowOffKPa }: Thresholds): boolean =>
  lowOnKPa !== undefined && litAt(was, kPa, { lowOnKPa, lowOffKPa });

function nearestTo(wheels: readonly WheelForecast[], celsius: number): NightForecast['nearest'] {
  return wheels
    .map(({ wheel, air, thresholds }) => {
      const kPa = atTemperature(air, celsius);
      return { wheel, kPa, marginKPa: kPa - (thresholds.lowOnKPa ?? 0) };
    })
    .sort((a, b) => a.marginKPa - b.marginKPa)[0];
}

/** The air in a tire by its last reading; once filled to its target, that at the same temperature. A target never lets air out here. */
function airIn(
  job: Job,
  ledger: Ledger,
  wheel: Position,
  targets: readonly Target[] | undefined,
): TirePressure | undefined {
  const reading = ledger.gauge[wheel]?.seen;
  const celsius = reading && tireCelsius(job, reading);
  if (!reading || celsius === undefined) return undefined;
  const filled = targets?.find((target) => target.wheel === wheel)?.setNowKPa;
  const kPa = filled === undefined ? reading.kPa : Math.max(filled, reading.kPa);
  return { kPa, celsius, altitudeM: altitudeOf(job) };
}
