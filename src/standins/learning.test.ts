import { describe, expect, it } from 'vitest';
import { carSchema, type Car } from './car';
import { feel, later, onRoad, overhears, type Hands, type Program } from './learning';

const wheels = ['LF', 'RF', 'RR', 'LR'] as const;
const ids = ['4B07C2D1', '4B07C2E9', '4B07A07F', '4B07BB10'];
const says = {
  entered: 'horn 2',
  learned: 'horn 1',
  refused: 'horn 5',
  finished: 'horn 3',
  failed: 'horn 4',
  expired: 'horn 6',
};
const ignitionOn = { gesture: 'switched' as const, what: 'ignition', to: 'on' };
const brakes = { gesture: 'tapped' as const, what: 'brake', times: 3, withinMs: 5000 };

/** A made-up car that holds nothing right yet and learns by this program. */
const carWith = (program: Partial<Program>, dead: readonly string[] = []): Car =>
  carSchema.parse({
    vin: 'MADEUP',
    receiver: null,
    frequencyMHz: 433.92,
    family: 'kestrel',
    lowOnKPa: 175,
    lowOffKPa: 200,
    outdoorC: 10,
    wheels: Object.fromEntries(
      wheels.map((wheel, at) => [
        wheel,
        {
          kPa: 230,
          sensor: { id: ids[at], frequencyMHz: 433.92, family: 'kestrel', dead: dead.includes(wheel) },
        },
      ]),
    ),
    registry: wheels.map((wheel) => ({ wheel, id: 'FFFFFFFF' })),
    lamp: 'flash-then-steady',
    programs: [{ by: 'transmission', entry: [ignitionOn, brakes], order: wheels, says, ...program }],
  });

const set = (what: string, to: string): Hands => ({ event: 'set', what, to });
const press = (what: string): Hands => ({ event: 'press', what });
const release = (what: string): Hands => ({ event: 'release', what });
const taught = (wheel: (typeof wheels)[number], method: string): Hands => ({
  event: 'taught',
  wheel,
  method,
});

const after = (car: Car, ...hands: [number, Hands][]): Car =>
  hands.reduce((now, [ms, hand]) => feel(now, hand, ms), car);
const entered = (car: Car): Car =>
  after(
    car,
    [0, set('ignition', 'on')],
    [1000, press('brake')],
    [1500, press('brake')],
    [2000, press('brake')],
  );
const said = ({ mind }: Car) => mind.said.map(({ cue }) => cue);
const held = ({ registry }: Car) => registry.map(({ id }) => id);

describe('a simulated car that is taught with the tool', () => {
  it('says that it learns only when its pedal was pressed fast enough, after the ignition', () => {
    expect(said(entered(carWith({})))).toEqual(['horn 2']);
    const slow = after(
      carWith({}),
      [0, set('ignition', 'on')],
      [0, press('brake')],
      [4000, press('brake')],
      [8000, press('brake')],
    );
    expect(said(slow)).toEqual([]);
    expect(said(after(carWith({}), [0, press('brake')], [1, press('brake')], [2, press('brake')]))).toEqual(
      [],
    );
  });

  it('takes each sensor it receives for the next wheel of its own order, and stores them when it has all', () => {
    const car = wheels.reduce((now, wheel, at) => overhears(now, wheel, 3000 + at), entered(carWith({})));
    expect(said(car)).toEqual(['horn 2', 'horn 1', 'horn 1', 'horn 1', 'horn 1', 'horn 3']);
    expect(held(car)).toEqual(ids);
    expect(car.lamp).toBe('off');
    const other = (['RF', 'LF', 'RR', 'LR'] as const).reduce(
      (now, wheel, at) => overhears(now, wheel, 3000 + at),
      entered(carWith({})),
    );
    expect(held(other).slice(0, 2)).toEqual([ids[1], ids[0]]);
  });

  it('refuses the same sensor twice, keeps nothing when the ignition goes off, and leaves when its time is out', () => {
    const twice = overhears(overhears(entered(carWith({})), 'LF', 3000), 'LF', 4000);
    expect(said(twice).at(-1)).toBe('horn 5');
    expect(held(feel(twice, set('ignition', 'off'), 5000))).toEqual(wheels.map(() => 'FFFFFFFF'));
    const slow = later(entered(carWith({ wheelMs: 10_000 })), 13_000);
    expect(said(slow).at(-1)).toBe('horn 6');
    expect(said(overhears(slow, 'LF', 14_000))).toEqual(said(slow));
  });

  it('never hears a sensor of another family', () => {
    const car = carWith({});
    const { LF } = car.wheels;
    if (!LF?.sensor) throw new Error('it has a sensor');
    const wrong = {
      ...car,
      wheels: { ...car.wheels, LF: { ...LF, sensor: { ...LF.sensor, family: 'plover' } } },
    };
    expect(said(overhears(entered(wrong), 'LF', 3000))).toEqual(['horn 2']);
  });
});

describe('others', () => {
  it('by falling pressure: the tire is softer afterwards; by a magnet: it is not', () => {
    const aired = feel(entered(carWith({ by: 'air' })), taught('LF', 'air'), 3000);
    expect(aired.wheels.LF?.kPa).toBe(205);
    expect(said(aired)).toEqual(['horn 2', 'horn 1']);
    expect(feel(entered(carWith({ by: 'magnet' })), taught('LF', 'magnet'), 3000).wheels.LF?.kPa).toBe(230);
  });

  it('give up at a dead sensor', () => {
    const car = feel(
      entered(carWith({ by: 'magnet', silentMs: 4000 }, ['LF'])),
      taught('LF', 'magnet'),
      3000,
    );
    expect(said(later(car, 6000))).toEqual(['horn 2']);
    expect(said(later(car, 7001)).at(-1)).toBe('horn 4');
  });

  it('by their menu: whole IDs for every wheel, or nothing', () => {
    const car = carWith({
      by: 'menu',
      entry: [{ gesture: 'opened', menu: ['Tires', 'IDs'] }],
      storesAt: ['Tires', 'Store'],
    });
    const store = (typed: object): Hands => ({ event: 'chosen', path: ['Tires', 'Store'], typed });
    const open: Hands = { event: 'chosen', path: ['Tires', 'IDs'] };
    const all = Object.fromEntries(wheels.map((wheel, at) => [wheel, ids[at]]));
    expect(held(after(car, [0, open], [1, store(all)]))).toEqual(ids);
    const short = after(car, [0, open], [1, store({ ...all, LR: '4B07' })]);
    expect(said(short).at(-1)).toBe('horn 4');
    expect(held(short)[0]).toBe('FFFFFFFF');
    expect(held(after(car, [1, store(all)]))[0]).toBe('FFFFFFFF');
  });

  it('on the road, when it has gone fast enough for long enough', () => {
    const car = onRoad(carWith({ by: 'road', entry: [], roadMs: 60_000 }), 50, 0);
    expect(held(later(car, 59_000))[0]).toBe('FFFFFFFF');
    expect(held(later(car, 60_000))).toEqual(ids);
    expect(held(later(onRoad(car, 20, 30_000), 90_000))[0]).toBe('FFFFFFFF');
  });

  it('by a held button, if it was held long enough and not too long', () => {
    const button = carWith({
      by: 'reference',
      entry: [{ gesture: 'held', what: 'button', leastMs: 4000, mostMs: 9000 }],
    });
    const heldFor = (ms: number) =>
      after(button, [0, press('button')], [ms, release('button')]).mind.reference;
    expect([3000, 5000, 10_000].map(heldFor)).toEqual([false, true, false]);
  });
});
