import type { Seen } from '../core/job';
import type { TrueCar } from './car';
import type { Chance } from './chance';
import { dayMs } from '../core/measure/calendar/spans';

/** What befell a car before it came, and the shop that reads it: chances, all invented. */
export interface Befell {
  /** Its tires were read at an earlier visit, when all was well: whatever leaks began to leak since. */
  readBefore: number;
  /** A low tire was filled on the way. */
  filledOnTheWay: number;
  /** The gauge reads beside the truth. */
  gaugeOff: number;
  /** The small spare stands in for a wheel. */
  spareOn: number;
}

/** What a small spare is kept at, kPa (common practice). */
const spareKPa = 420;

/** Lets it befall a car that was drawn, `at` being when it comes in. */
export function befall(
  car: TrueCar,
  { readBefore, filledOnTheWay, gaugeOff, spareOn }: Befell,
  chance: Chance,
  at: string,
): void {
  for (const wheel of car.wheels)
    if (wheel.kPa < 0.85 * wheel.placardKPa && chance.is(filledOnTheWay))
      wheel.kPa = chance.normal(wheel.placardKPa, 6);
  if (chance.is(gaugeOff)) car.gaugeOffKPa = (chance.is(0.5) ? 1 : -1) * chance.between(12, 40);
  if (chance.is(readBefore)) {
    const before = new Date(Date.parse(at) - chance.between(20, 430) * dayMs).toISOString();
    car.job.history = car.wheels.map(({ wheel, placardKPa }): Seen<'gauge'> => ({
      kind: 'gauge',
      at: before,
      wheel,
      kPa: Math.round(chance.normal(placardKPa, 4)),
      tire: 'cold',
    }));
  }
  if (car.kind === 'direct' && car.set === 'own' && chance.is(spareOn)) putSpareOn(car, chance);
}

/** It has no sensor, its own pressure, and the car still holds the ID of the wheel in the trunk. */
function putSpareOn(car: TrueCar, chance: Chance): void {
  const wheel = chance.oneOf(car.wheels as [TrueCar['wheels'][number], ...TrueCar['wheels']]);
  wheel.spare = true;
  wheel.kPa = wheel.placardKPa = Math.round(
    chance.is(0.85) ? chance.normal(0.94 * spareKPa, 20) : chance.normal(0.75 * spareKPa, 30),
  );
  wheel.sensor = 'absent';
  wheel.leaking = false;
  wheel.cooled = false;
  for (const [position, there] of car.wheelAt) if (there === wheel) car.held.set(position, wheel.id);
}
