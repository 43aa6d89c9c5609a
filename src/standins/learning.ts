import { z } from 'zod';
import { canonicalId } from '../core/names/sensor-id';
import { walkingOrder, type Position } from '../core/names/wheel';
import type { Car } from './car';

/**
 * How a simulated car learns its sensors: a program of its own, as its maker built it in, fed by switches, pedals, menus,
 * air, magnets, the road and what its receiver hears. What it has to say it says by horn, lamps and messages. It knows
 * nothing of the procedure that somebody follows, which may be wrong.
 */

const position = z.enum(walkingOrder);
const ms = z.number().min(0);

/** What somebody must do before it learns; it watches for these, one after the other. */
const gestureSchema = z.discriminatedUnion('gesture', [
  z.object({ gesture: z.literal('switched'), what: z.string(), to: z.string() }),
  z.object({ gesture: z.literal('tapped'), what: z.string(), times: z.int(), withinMs: ms }),
  z.object({ gesture: z.literal('held'), what: z.string(), leastMs: ms, mostMs: ms }),
  z.object({ gesture: z.literal('opened'), menu: z.array(z.string()) }),
]);

export const programSchema = z.object({
  /** What teaches it: a woken sensor, falling pressure, a magnet, a menu, the road, or what it stores as it stands. */
  by: z.enum(['transmission', 'air', 'magnet', 'menu', 'road', 'reference']),
  entry: z.array(gestureSchema),
  /** The wheels, one after the other. */
  order: z.array(position).default([]),
  says: z
    .object({
      entered: z.string(),
      learned: z.string(),
      refused: z.string(),
      finished: z.string(),
      failed: z.string(),
      expired: z.string(),
    })
    .partial()
    .default({}),
  /** It leaves after so long without the wheel it waits for, or in all. */
  wheelMs: ms.optional(),
  totalMs: ms.optional(),
  /** Air or a magnet at a wheel that sends nothing: so long after, it gives up. */
  silentMs: ms.optional(),
  /** So long above its wake speed it needs to know what it hears. */
  roadMs: ms.default(0),
  /** The entry of its menu that stores what was typed. */
  storesAt: z.array(z.string()).default([]),
});
export type Program = z.infer<typeof programSchema>;

export const mindSchema = z.object({
  /** What it said, numbered. */
  said: z.array(z.object({ n: z.int(), cue: z.string() })).default([]),
  /** How many gestures of each program it has seen. */
  seen: z.array(z.int()).default([]),
  taps: z.array(z.object({ what: z.string(), atMs: z.number() })).default([]),
  pressed: z.record(z.string(), z.number()).default({}),
  learning: z
    .object({
      program: z.int(),
      sinceMs: z.number(),
      wheelSinceMs: z.number(),
      /** Since when it waits in vain for the sensor of a wheel that was handled. */
      silentSinceMs: z.number().nullable(),
      learned: z.array(z.object({ wheel: position, id: z.string() })),
    })
    .nullable()
    .default(null),
  /** On the road since, above wake speed. */
  roadSinceMs: z.number().nullable().default(null),
  reference: z.boolean().default(false),
});
type Mind = z.infer<typeof mindSchema>;

/** What hands do that a car feels. */
export const handsSchema = z.discriminatedUnion('event', [
  z.looseObject({ event: z.literal('set'), what: z.string(), to: z.string() }),
  z.looseObject({ event: z.literal('press'), what: z.string() }),
  z.looseObject({ event: z.literal('release'), what: z.string() }),
  z.looseObject({
    event: z.literal('chosen'),
    path: z.array(z.string()),
    /** What was typed into the menu before. */
    typed: z.partialRecord(position, z.string()).optional(),
  }),
  z.looseObject({ event: z.literal('taught'), wheel: position, method: z.string() }),
  z.looseObject({ event: z.literal('speed'), kmh: z.number() }),
]);
export type Hands = z.infer<typeof handsSchema>;

/** So many of its last words it remembers. */
const remembered = 40;
/** What letting air out until it answers takes off a tire, kPa. */
const letOutKPa = 25;

const think = (car: Car, mind: Partial<Mind>): Car => ({ ...car, mind: { ...car.mind, ...mind } });

function say(car: Car, cue: string | undefined): Car {
  if (cue === undefined) return car;
  const n = (car.mind.said.at(-1)?.n ?? 0) + 1;
  return think(car, { said: [...car.mind.said, { n, cue }].slice(-remembered) });
}

const programOf = (car: Car): Program | undefined =>
  car.mind.learning ? car.programs[car.mind.learning.program] : undefined;

/** What a car does by itself as time goes by: it leaves its learning, gives up at a wheel, knows enough of the road. */
export function later(car: Car, nowMs: number): Car {
  const { learning, roadSinceMs } = car.mind;
  const program = programOf(car);
  if (learning && program) {
    const { sinceMs, wheelSinceMs, silentSinceMs } = learning;
    const over = (since: number, limit: number | undefined) => limit !== undefined && nowMs - since > limit;
    if (silentSinceMs !== null && over(silentSinceMs, program.silentMs))
      return leave(car, program.says.failed);
    if (over(wheelSinceMs, program.wheelMs) || over(sinceMs, program.totalMs))
      return leave(car, program.says.expired);
  }
  const road = car.programs.find(({ by }) => by === 'road');
  if (road && roadSinceMs !== null && nowMs - roadSinceMs >= road.roadMs) return learnFromRoad(car);
  return car;
}

const leave = (car: Car, cue: string | undefined): Car => say(think(car, { learning: null, seen: [] }), cue);

export function feel(before: Car, hands: Hands, nowMs: number): Car {
  const car = later(before, nowMs);
  switch (hands.event) {
    case 'set': {
      const switched = gestured(
        car,
        nowMs,
        (gesture) => gesture.gesture === 'switched' && gesture.what === hands.what && gesture.to === hands.to,
      );
      if (hands.what !== 'ignition') return switched;
      return hands.to === 'off'
        ? think(switched, { learning: null, seen: [], taps: [] })
        : selfCheck(switched);
    }
    case 'press': {
      const taps = [...car.mind.taps, { what: hands.what, atMs: nowMs }];
      const pressed = { ...car.mind.pressed, [hands.what]: nowMs };
      return gestured(think(car, { taps, pressed }), nowMs, (gesture) => {
        if (gesture.gesture !== 'tapped' || gesture.what !== hands.what) return false;
        const close = taps.filter(
          ({ what, atMs }) => what === hands.what && nowMs - atMs <= gesture.withinMs,
        );
        return close.length >= gesture.times;
      });
    }
    case 'release': {
      const { [hands.what]: sinceMs, ...pressed } = car.mind.pressed;
      const released = think(car, { pressed });
      if (sinceMs === undefined) return released;
      const heldMs = nowMs - sinceMs;
      return gestured(
        released,
        nowMs,
        (gesture) =>
          gesture.gesture === 'held' &&
          gesture.what === hands.what &&
          heldMs >= gesture.leastMs &&
          heldMs <= gesture.mostMs,
      );
    }
    case 'chosen': {
      const stored = takeTyped(car, hands.path, hands.typed ?? {});
      return gestured(
        stored,
        nowMs,
        (gesture) => gesture.gesture === 'opened' && isSame(gesture.menu, hands.path),
      );
    }
    case 'taught':
      return handled(car, hands.wheel, hands.method, nowMs);
    case 'speed':
      return car;
  }
}

const isSame = (one: readonly string[], other: readonly string[]): boolean =>
  one.join('\n') === other.join('\n');

/** The next gesture of each program, where this was it; one that was not done well may be done again. */
function gestured(car: Car, nowMs: number, done: (gesture: z.infer<typeof gestureSchema>) => boolean): Car {
  if (car.mind.learning) return car;
  const seen = car.programs.map(({ entry }, at) => {
    const before = car.mind.seen[at] ?? 0;
    const next = entry[before];
    return next && done(next) ? before + 1 : before;
  });
  const program = car.programs.findIndex(
    ({ entry }, at) => entry.length > 0 && (seen[at] ?? 0) >= entry.length,
  );
  const entered = car.programs[program];
  if (!entered) return think(car, { seen });
  const learning = { program, sinceMs: nowMs, wheelSinceMs: nowMs, silentSinceMs: null, learned: [] };
  const now = say(think(car, { seen: [], taps: [], learning }), entered.says.entered);
  // What it compares with it takes as it stands.
  return entered.by === 'reference' ? think(selfCheck(now), { reference: true, learning: null }) : now;
}

/** Air let out, or a magnet held, at a wheel: an old sensor sends for the one, every living one for the other. */
function handled(car: Car, wheel: Position, method: string, nowMs: number): Car {
  const found = car.wheels[wheel];
  const softer =
    method === 'air' && found
      ? { ...car, wheels: { ...car.wheels, [wheel]: { ...found, kPa: Math.max(0, found.kPa - letOutKPa) } } }
      : car;
  const program = programOf(softer);
  const { learning } = softer.mind;
  if (!learning || !program || program.by !== method) return softer;
  return found?.sensor && !found.sensor.dead
    ? receives(softer, wheel, nowMs)
    : think(softer, { learning: { ...learning, silentSinceMs: nowMs } });
}

/** A sensor was woken somewhere: a car that learns by what it receives takes it for the wheel it waits for. */
export function overhears(before: Car, wheel: Position, nowMs: number): Car {
  const car = later(before, nowMs);
  return programOf(car)?.by === 'transmission' ? receives(car, wheel, nowMs) : car;
}

function receives(car: Car, wheel: Position, nowMs: number): Car {
  const { learning } = car.mind;
  const program = programOf(car);
  const sensor = car.wheels[wheel]?.sensor;
  if (!learning || !program || !sensor) return car;
  if (sensor.frequencyMHz !== car.frequencyMHz || sensor.family !== car.family) return car;
  const { learned } = learning;
  if (learned.some(({ id }) => canonicalId(id) === canonicalId(sensor.id)))
    return say(car, program.says.refused);
  const place = program.order[learned.length];
  if (!place) return car;
  const next = [...learned, { wheel: place, id: sensor.id }];
  const heard = say(
    think(car, { learning: { ...learning, learned: next, wheelSinceMs: nowMs, silentSinceMs: null } }),
    program.says.learned,
  );
  return next.length < program.order.length
    ? heard
    : selfCheck(leave(stored(heard, next), program.says.finished));
}

/** Other positions keep what they hold. */
function stored(car: Car, learned: readonly { wheel: Position; id: string }[]): Car {
  const wheels = new Set([...car.registry, ...learned].map(({ wheel }) => wheel));
  const registry = walkingOrder
    .filter((wheel) => wheels.has(wheel))
    .map(
      (wheel) =>
        learned.find((entry) => entry.wheel === wheel) ??
        car.registry.find((entry) => entry.wheel === wheel) ?? { wheel, id: null },
    );
  return { ...car, registry, heard: {} };
}

/** A menu that stores what was typed: whole IDs, one for each wheel, or nothing. */
function takeTyped(car: Car, path: readonly string[], typed: Partial<Record<Position, string>>): Car {
  const program = programOf(car);
  if (program?.by !== 'menu' || !isSame(program.storesAt, path)) return car;
  const ids = program.order.flatMap((wheel) => {
    const id = typed[wheel];
    return id !== undefined && /^[0-9A-F]{8}$/.test(canonicalId(id)) ? [{ wheel, id: canonicalId(id) }] : [];
  });
  return ids.length === program.order.length
    ? selfCheck(leave(stored(car, ids), program.says.finished))
    : leave(car, program.says.failed);
}

/** Above its wake speed a car that learns on the road hears its own sensors, and keeps them. */
function learnFromRoad(car: Car): Car {
  const heard = walkingOrder.flatMap((wheel) => {
    const sensor = car.wheels[wheel]?.sensor;
    return sensor && !sensor.dead && sensor.frequencyMHz === car.frequencyMHz && sensor.family === car.family
      ? [{ wheel, id: sensor.id }]
      : [];
  });
  return selfCheck(think(stored(car, heard), { roadSinceMs: null }));
}

/** How fast it goes counts from when it began to go so fast. */
export function onRoad(before: Car, kmh: number, nowMs: number): Car {
  const car = later(before, nowMs);
  const roadSinceMs = kmh >= car.wakeSpeedKmh ? (car.mind.roadSinceMs ?? nowMs) : null;
  return think(car, { roadSinceMs });
}

/** At ignition on, and when it has learned: its lamp says what it knows of its tires and sensors. */
function selfCheck(car: Car): Car {
  const holds = ({ wheel, id }: Car['registry'][number]) => {
    const sensor = car.wheels[wheel]?.sensor;
    return !sensor || (!sensor.dead && id !== null && canonicalId(id) === canonicalId(sensor.id));
  };
  // One that compares wheel speeds, or holds nothing yet, has nothing to go by until it has learned.
  if (car.registry.length === 0) return car.mind.reference ? { ...car, lamp: 'off' } : car;
  if (!car.registry.every(holds)) return { ...car, lamp: 'flash-then-steady' };
  const low = Object.values(car.wheels).some(({ kPa, sensor }) => sensor !== null && kPa <= car.lowOnKPa);
  return { ...car, lamp: low ? 'steady' : 'off' };
}
