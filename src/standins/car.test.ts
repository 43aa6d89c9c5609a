import { describe, expect, it } from 'vitest';
import cars from '../../demo/cars.json' with { type: 'json' };
import { carSchema, clearCodes, coolTo, drive, fill, live, park, store, wake, type Car } from './car';

const car = (more: Partial<Car> = {}): Car => ({ ...carSchema.parse(cars[0]), ...more });
const registered = (of: Car) =>
  Object.entries(of.wheels).flatMap(([wheel, found]) =>
    found?.sensor ? [{ wheel: wheel as 'LF', id: found.sensor.id }] : [],
  );
const low = (of: Car, kPa: number) => fill(of, 'RF', kPa);

describe('a simulated car', () => {
  it('hears nothing while it stands, and every registered sensor above wake speed', () => {
    const right = store(car(), registered(car()));
    expect(live(right).map(({ kPa }) => kPa)).toEqual([null, null, null, null]);
    expect(live(drive(right, 62)).map(({ kPa }) => kPa)).toEqual([231, 230, 221, 220]);
    expect(live(drive(right, 30)).every(({ kPa }) => kPa === null)).toBe(true);
    expect(live(park(drive(right, 62))).every(({ kPa }) => kPa === null)).toBe(true);
  });

  it('with a sensor it does not hold sets a code and flashes; once it holds it, the lamp goes out', () => {
    const wrong = drive(clearCodes(car()), 62);
    expect(wrong.codes).toEqual([{ code: 'C1B31', active: true }]);
    expect(wrong.lamp).toBe('flash-then-steady');
    const right = drive(store(wrong, registered(wrong)), 62);
    expect(right.lamp).toBe('off');
    expect(right.codes).toEqual([{ code: 'C1B31', active: false }]);
  });

  it('lights its lamp at the "on" figure and puts it out only at the "off" figure', () => {
    const right = store(car(), registered(car()));
    const lit = drive(low(right, 175), 62);
    expect(lit.lamp).toBe('steady');
    expect(drive(low(lit, 190), 62).lamp).toBe('steady');
    expect(drive(low(lit, 200), 62).lamp).toBe('off');
    expect(drive(low(right, 190), 62).lamp).toBe('off');
  });

  it('never hears a sensor of another carrier or a dead one', () => {
    const right = store(car(), registered(car()));
    const sensor = right.wheels.LF?.sensor;
    if (!sensor) throw new Error('the car has a sensor at LF');
    const withLF = (change: object): Car => ({
      ...right,
      wheels: { ...right.wheels, LF: { kPa: 230, sensor: { ...sensor, ...change } } },
    });
    expect(live(drive(withLF({ frequencyMHz: 315 }), 62))[0]?.kPa).toBeNull();
    expect(live(drive(withLF({ dead: true }), 62))[0]?.kPa).toBeNull();
    expect(wake(withLF({ dead: true }), 'LF').replies).toEqual([]);
  });

  it('shows the pressure of the sensor registered for a place, wherever that wheel really is', () => {
    const right = store(car(), registered(car()));
    const swapped = store(
      right,
      right.registry.map(({ wheel, id }) => ({
        wheel: wheel === 'LF' ? 'LR' : wheel === 'LR' ? 'LF' : wheel,
        id,
      })),
    );
    const shown = Object.fromEntries(live(drive(swapped, 62)).map(({ wheel, kPa }) => [wheel, kPa]));
    expect(shown).toMatchObject({ LF: 220, LR: 231 });
  });

  it('answers a try only once the antenna was moved, where its sensor wants that', () => {
    const sensor = car().wheels.LF?.sensor;
    if (!sensor) throw new Error('the car has a sensor at LF');
    const shy = car({ wheels: { LF: { kPa: 231, sensor: { ...sensor, answersFromTry: 2 } } } });
    const first = wake(shy, 'LF');
    expect(first.replies).toEqual([]);
    expect(wake(first.car, 'LF').replies).toHaveLength(1);
  });

  it('cools overnight by the gas law, and its lamp judges the morning', () => {
    const warm = { ...car(), altitudeM: 0, outdoorC: 10 };
    const wheel = warm.wheels.LF;
    if (wheel) warm.wheels = { ...warm.wheels, LF: { ...wheel, kPa: 240, tireC: 30 } };
    const cold = coolTo(warm, -10);
    // By hand: (240 + 101.325) · 263.15 / 303.15 − 101.325.
    expect(cold.wheels.LF?.kPa).toBeCloseTo((341.325 * 263.15) / 303.15 - 101.325, 3);
    // The others stood at the outdoor temperature before.
    expect(cold.wheels.RF?.kPa).toBeCloseTo((331.325 * 263.15) / 283.15 - 101.325, 3);
    expect(cold.outdoorC).toBe(-10);
    expect(wake(cold, 'LF').replies).toMatchObject([{ tempC: -10 }]);
  });
});
