import { setImmediate } from 'node:timers/promises';
import { describe, expect, it } from 'vitest';
import { chanceFrom, drawCar, population, truthOf } from '.';
import { pushedOff, worlds } from './world';

/** With a turn of the event loop after each car: it takes long, and the runner's own messages go by there. */
const run = async (cars: number, seed: number) => {
  const steps = population(cars, seed);
  let step = steps.next();
  let last = 0;
  while (!step.done) {
    last = step.value.done;
    await setImmediate();
    step = steps.next();
  }
  return { report: step.value, last };
};

describe('a simulated population', () => {
  it('is the same for the same seed, and another for another', async () => {
    const { report } = await run(30, 1);
    expect((await run(30, 1)).report).toEqual(report);
    expect((await run(30, 2)).report).not.toEqual(report);
  });

  it('tells how far it is, car by car', async () => {
    expect((await run(25, 3)).last).toBe(25);
  });

  it('shows the engine above both ways to work without it, with fewer parts and fewer minutes', async () => {
    const { engine, checklist, replace, reliability, calibrationError, cars } = (await run(300, 11)).report;
    expect(cars).toBe(300);
    expect(engine.right).toBeGreaterThan(0.93);
    expect(engine.right).toBeGreaterThan(checklist.right);
    expect(checklist.right).toBeGreaterThan(replace.right);
    expect(engine.minutesPerCar).toBeLessThan(0.6 * checklist.minutesPerCar);
    expect(engine.needlessPartsPer1000).toBeLessThanOrEqual(checklist.needlessPartsPer1000);
    expect(calibrationError).toBeLessThan(0.06);
    expect(reliability.reduce((sum, { claims }) => sum + claims, 0)).toBeGreaterThan(500);
  });

  it('draws cars of all kinds, and knows what is true of them', () => {
    const chance = chanceFrom(5);
    const off = pushedOff(chance);
    const codes = new Set(
      Array.from({ length: 1500 }, () =>
        truthOf(drawCar(chance, off, worlds.reporting)).map(({ code }) => code),
      ).flat(),
    );
    for (const code of [
      'tire-low',
      'tire-leaking',
      'sensor-silent',
      'sensor-wrong-type',
      'id-not-registered',
      'id-mistyped',
      'positions-swapped',
      'receiver-fault',
      'other-set-registered',
      'baseline-not-set',
      'wheel-speed-sensor-fault',
      'temperature-drop',
      'system-disabled',
    ] as const) {
      expect(codes, code).toContain(code);
    }
  });
});

describe('what befalls a car before it comes', () => {
  const chance = chanceFrom(6);
  const off = pushedOff(chance);
  const cars = Array.from({ length: 1500 }, () => drawCar(chance, off, worlds['reporting-befallen']));

  it('is a gauge that is off, a small spare, and readings of an earlier visit with all in order', () => {
    const codes = new Set(cars.flatMap((car) => truthOf(car).map(({ code }) => code)));
    expect(codes).toContain('gauge-off');
    expect(codes).toContain('spare-in-use');
    const read = cars.filter(({ job }) => job.history);
    expect(read.length).toBeGreaterThan(700);
    for (const { job } of read)
      for (const { at, kPa } of job.history ?? []) {
        expect(Date.parse(at)).toBeLessThan(Date.parse('2026-10-01T00:00:00Z'));
        expect(kPa).toBeGreaterThan(190);
      }
  });

  it('gives the spare its own pressure and no sensor', () => {
    const spares = cars.flatMap(({ wheels }) => wheels.filter(({ spare }) => spare));
    expect(spares.length).toBeGreaterThan(5);
    for (const { sensor, kPa } of spares) {
      expect(sensor).toBe('absent');
      expect(kPa).toBeGreaterThan(200);
    }
  });
});

describe('a source of chance', () => {
  it('is uniform and normal as it says', () => {
    const chance = chanceFrom(9);
    const shares = Array.from({ length: 20_000 }, () => chance.share());
    expect(Math.min(...shares)).toBeGreaterThanOrEqual(0);
    expect(Math.max(...shares)).toBeLessThan(1);
    expect(shares.reduce((sum, share) => sum + share, 0) / shares.length).toBeCloseTo(0.5, 1);
    const normals = Array.from({ length: 20_000 }, () => chance.normal(10, 2));
    const mean = normals.reduce((sum, value) => sum + value, 0) / normals.length;
    expect(mean).toBeCloseTo(10, 1);
    expect(
      Math.sqrt(normals.reduce((sum, value) => sum + (value - mean) ** 2, 0) / normals.length),
    ).toBeCloseTo(2, 1);
  });
});
