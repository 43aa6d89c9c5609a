import type { Forecast } from '../../../core/car/lamp';
import type { Loss } from '../../../core/tire/leak';
import { seepagePerMonthKPa } from '../../../core/tire/leak/seepage';
import {
  decimal,
  format,
  pressure,
  temperature,
  unitNamed,
  type Notation,
} from '../../../core/measure/units';
import { positionName } from '../../../core/names/wheel';
import { time, weekday } from '../../../core/measure/calendar';

export const enterOutdoorFirst = 'Enter the outdoor temperature under Weather first.';
export const outdoorOrMeasured = 'Enter the outdoor temperature under Weather first, or measure the tire.';
export const noMinutes = 'Minutes are a figure from 0 up.';

export const lossVerdictWords: Record<Loss['verdict'], string> = {
  leaks: 'loses air',
  sound: 'sound',
  'not-known': 'not known',
};

/** What the readings of a wheel say of its losses, with the interval that holds in 95 of 100. */
export function lossWords({ wheel, verdict, perDayKPa }: Loss, units: Notation): string {
  if (!perDayKPa) return '';
  const [best, low, high] = [perDayKPa.best, perDayKPa.low, perDayKPa.high].map((kPa) => rate(kPa, units));
  const seepage = rate(seepagePerMonthKPa.most / 30, units);
  const a = `${best} ${units.pressure} a day`;
  switch (verdict) {
    case 'leaks':
      return `${wheel} loses ${a} (95 %: ${low} to ${high}), more than the ${seepage} that seep through rubber.`;
    case 'sound':
      return `${wheel} is sound: ${a} (95 %: ${low} to ${high}), no more than the ${seepage} that seep through rubber.`;
    case 'not-known':
      return `Not known yet: ${a}, but anything from ${low} to ${high} fits.`;
  }
}

export function oneReadingWords({ wheel, tellsAfterDays }: Loss): string {
  const when = tellsAfterDays === undefined ? 'at the next visit' : `in ${Math.ceil(tellsAfterDays)} days`;
  return `One reading of ${positionName[wheel]} is known. A loss needs two, with time between and each with its temperature: read it again ${when}.`;
}

/** When a loss lights the lamp. */
export function lampSoonWords({ best, soonest, latest }: NonNullable<Loss['lampInDays']>): string {
  if (best <= 0) return 'It is at the figure that lights the lamp already.';
  return `At that rate it lights the lamp in ${days(best)} or so (95 %: ${days(soonest)} to ${days(latest)}), without a change in the weather.`;
}

function days(value: number): string {
  if (value > 365) return 'more than a year';
  const whole = Math.max(1, Math.round(value));
  return whole === 1 ? '1 day' : `${whole} days`;
}

/** A pressure a day; fewer decimals than a reading's would hide a slow leak. */
function rate(kPaPerDay: number, units: Notation): string {
  const { fromBase, decimals } = unitNamed(pressure, units.pressure);
  return decimal(fromBase(kPaPerDay), decimals + 1, units);
}

/** What the lamp does in the nights to come. */
export function forecastWords({ litNow, changes, nights }: Forecast, units: Notation): string {
  // Of low pressure alone: a lamp that flashes tells of something else.
  const now = litNow ? 'The tires hold the lamp on' : 'The tires do not light the lamp';
  const [next] = changes;
  if (!next) return nights.length === 0 ? `${now}.` : `${now}, now and on all nights that are known.`;
  if (!next.lit) return `${now} until it warms up. It is back with the cold: fill to placard.`;
  const which = next.wheels.join(' and ');
  const night = nights.find(({ lit }) => lit === next.lit);
  const cold = night ? `, in the night that falls to ${format(temperature, night.coldestC, units)}` : '';
  return `${now} now. It lights on ${weekday(next.at, units)} at ${time(next.at, units)} for ${which}${cold}.`;
}
