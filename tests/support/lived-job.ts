import type { Job } from '../../src/core/job';
import { drawCar } from '../../src/simulation';
import type { Chance } from '../../src/simulation/chance';
import { doTest, lampOf } from '../../src/simulation/look';
import type { World } from '../../src/simulation/world';
import { roadWheels } from '../../src/core/names/wheel';

const checks = ['registry', 'drive', 'display', 'lamp', 'wheelspeed', 'reception'] as const;
const steps = ['gauge', 'gauge', 'activation', 'visual'] as const;

/**
 * A visit as it may come about in a shop: warm tires and cold ones, wheels read twice and others not at all, some of them
 * filled, in any order, some of it days after the rest.
 */
export function livedJob(world: World, off: Parameters<typeof drawCar>[1], chance: Chance): Job {
  const car = drawCar(chance, off, world);
  if (chance.is(0.33)) car.warmK = chance.between(5, 25);
  let job: Job = { ...car.job, observations: [lampOf(car, chance)] };
  let minutes = 0;
  for (let n = 1; n <= 16; n += 1) {
    minutes += chance.is(0.06) ? Math.round(chance.between(60, 4 * 24 * 60)) : 2;
    car.job = job;
    const at = chance.oneOf(roadWheels);
    const wheel = car.wheels.find((one) => one.wheel === at);
    const isRead = job.observations.some((seen) => seen.kind === 'gauge' && seen.wheel === at);
    const isFill = wheel !== undefined && isRead && chance.is(0.15);
    if (isFill) wheel.kPa = wheel.placardKPa + chance.normal(0, 2);
    const test = isFill ? 'gauge' : n % 6 === 0 ? chance.oneOf(checks) : chance.oneOf(steps);
    const hasAnswer =
      car.kind === 'direct' || !['activation', 'registry', 'drive', 'display', 'reception'].includes(test);
    if (hasAnswer)
      job = { ...job, observations: [...job.observations, ...doTest(car, test, at, minutes, chance)] };
  }
  return job;
}
