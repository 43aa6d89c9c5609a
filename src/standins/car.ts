import { lampStates } from '../core/names/kinds';
import { z } from 'zod';
import { atTemperature } from '../core/measure/pressure';
import { canonicalId } from '../core/names/sensor-id';
import { receiverSchema, type LiveEntry, type RegistryEntry } from '../core/car/uds/receiver';
import type { Blank } from './cradle';
import { mindSchema, programSchema } from './learning';
import { usualWakeSpeedKmh } from '../core/car/wake-speed';
import { walkingOrder, type Position } from '../core/names/wheel';

/** A simulated car: its wheels with their sensors, what its receiver holds and hears, its lamp. */

const sensorSchema = z.object({
  id: z.string(),
  frequencyMHz: z.number(),
  family: z.string(),
  battery: z.enum(['ok', 'low']).default('ok'),
  /** Dead or torn off: it answers nothing. */
  dead: z.boolean().default(false),
  /** What it adds to the true pressure, kPa. */
  offsetKPa: z.number().default(0),
  /** It answers only from this many tries on: the antenna must be moved first. */
  answersFromTry: z.int().default(1),
});

const wheelSchema = z.object({
  /** Gauge pressure at the temperature the tire has. */
  kPa: z.number(),
  /** Of the air inside, °C; that of the outdoor air where it is not said. */
  tireC: z.number().optional(),
  sensor: sensorSchema.nullable(),
});

export const carSchema = z.object({
  vin: z.string(),
  receiver: receiverSchema.nullable(),
  frequencyMHz: z.number().optional(),
  family: z.string().optional(),
  lowOnKPa: z.number(),
  lowOffKPa: z.number(),
  outdoorC: z.number(),
  altitudeM: z.number().default(0),
  wheels: z.partialRecord(z.enum(walkingOrder), wheelSchema),
  registry: z.array(z.object({ wheel: z.enum(walkingOrder), id: z.string().nullable() })).default([]),
  codes: z.array(z.object({ code: z.string(), active: z.boolean() })).default([]),
  lamp: z.enum(lampStates),
  supply: z
    .object({ volts: z.number(), engine: z.enum(['on', 'off']) })
    .default({ volts: 12.6, engine: 'off' }),
  speedKmh: z.number().default(0),
  wakeSpeedKmh: z.number().default(usualWakeSpeedKmh),
  /** What its receiver does with a write: store it, say yes and forget it, refuse, or store it and say nothing. */
  onWrite: z.enum(['stores', 'forgets', 'refuses', 'loses-answer']).default('stores'),
  /** How long a write takes, ms. */
  writeMs: z.number().default(300),
  /** What the receiver last heard per wheel on the road. */
  heard: z.partialRecord(z.enum(walkingOrder), z.object({ kPa: z.number(), tempC: z.number() })).default({}),
  tries: z.partialRecord(z.enum(walkingOrder), z.int()).default({}),
  /** The wheels of its second set, on the bench, and how often each was tried there. */
  bench: z.partialRecord(z.enum(walkingOrder), wheelSchema).default({}),
  benchTries: z.partialRecord(z.enum(walkingOrder), z.int()).default({}),
  /** The ways it can be taught. */
  programs: z.array(programSchema).default([]),
  mind: mindSchema.default(mindSchema.parse({})),
});

export type Car = z.infer<typeof carSchema>;

/** Sensors shown warmer than the outdoor air by this much on the road, K. */
const roadWarmthK = 8;

/** What answers when the tool is held to a wheel: its own sensor, if that is alive and awake enough. */
export function wake(car: Car, wheel: Position): { car: Car; replies: object[] } {
  const tries = (car.tries[wheel] ?? 0) + 1;
  const next = { ...car, tries: { ...car.tries, [wheel]: tries } };
  const found = car.wheels[wheel];
  if (!found?.sensor || found.sensor.dead || tries < found.sensor.answersFromTry)
    return { car: next, replies: [] };
  const { id, frequencyMHz, family, battery, offsetKPa } = found.sensor;
  const kPa = Math.round(found.kPa + offsetKPa);
  return {
    car: next,
    replies: [
      {
        id,
        kPa,
        tempC: Math.round(found.tireC ?? car.outdoorC),
        frequencyMHz,
        family,
        battery,
        accelG: 0,
        rssiDbm: -48,
      },
    ],
  };
}

/** Whether the receiver can hear this wheel's sensor: alive, its carrier and family, and registered. */
function hears(car: Car, wheel: Position): boolean {
  const sensor = car.wheels[wheel]?.sensor;
  return (
    sensor != null &&
    !sensor.dead &&
    sensor.frequencyMHz === car.frequencyMHz &&
    sensor.family === car.family &&
    car.registry.some(({ id }) => id !== null && canonicalId(id) === canonicalId(sensor.id))
  );
}

/** On the road: above wake speed the receiver hears what it can, sets its codes and its lamp. */
export function drive(car: Car, speedKmh: number): Car {
  const moving = { ...car, speedKmh };
  if (!car.receiver || speedKmh < car.wakeSpeedKmh) return moving;
  const { wheels } = car.receiver;
  const heard: Car['heard'] = {};
  for (const { wheel, id } of car.registry) {
    const place = walkingOrder.find((candidate) => {
      const sensor = car.wheels[candidate]?.sensor;
      return id !== null && sensor && canonicalId(sensor.id) === canonicalId(id);
    });
    const found = place && hears(car, place) ? car.wheels[place] : undefined;
    if (found)
      heard[wheel] = { kPa: found.kPa + (found.sensor?.offsetKPa ?? 0), tempC: car.outdoorC + roadWarmthK };
  }
  const missing = wheels.filter((wheel) => !heard[wheel]);
  const about = Object.entries(car.receiver.codes);
  const set = about.filter(
    ([, { about, wheel }]) => about === 'no-signal' && wheel && missing.includes(wheel),
  );
  const low = Object.values(heard).some(({ kPa }) => kPa <= car.lowOnKPa);
  const latched = car.lamp === 'steady' && Object.values(heard).some(({ kPa }) => kPa < car.lowOffKPa);
  return {
    ...moving,
    heard,
    codes: [
      ...car.codes
        .filter(({ code }) => !set.some(([name]) => name === code))
        .map(({ code }) => ({ code, active: false })),
      ...set.map(([code]) => ({ code, active: true })),
    ],
    lamp: missing.length > 0 ? 'flash-then-steady' : low || latched ? 'steady' : 'off',
  };
}

/** Standing again: the sensors fall asleep, codes and lamp stay. */
export const park = (car: Car): Car => ({ ...car, speedKmh: 0 });

/** A night: the car stands until its tires have the temperature of the air, and their pressures follow. */
export function coolTo(car: Car, celsius: number): Car {
  const wheels = Object.entries(car.wheels).map(([wheel, { tireC = car.outdoorC, kPa, ...rest }]) => {
    const air = { kPa, celsius: tireC, altitudeM: car.altitudeM };
    return [wheel, { ...rest, kPa: atTemperature(air, celsius) }];
  });
  return { ...car, outdoorC: celsius, wheels: Object.fromEntries(wheels) as Car['wheels'] };
}

export function fill(car: Car, wheel: Position, kPa: number): Car {
  const found = car.wheels[wheel];
  return found ? { ...car, wheels: { ...car.wheels, [wheel]: { ...found, kPa } } } : car;
}

/** Another sensor goes into a wheel; a blank one sends nothing. */
export function fit(car: Car, wheel: Position, { id, sends, battery }: Blank): Car {
  const found = car.wheels[wheel];
  if (!found) return car;
  const sensor: NonNullable<(typeof found)['sensor']> = {
    id: id ?? '',
    family: sends?.family ?? '',
    frequencyMHz: sends?.frequencyMHz ?? 1,
    battery,
    dead: id === null,
    offsetKPa: 0,
    answersFromTry: 1,
  };
  return { ...car, wheels: { ...car.wheels, [wheel]: { ...found, sensor } } };
}

/** What the receiver has live: nothing while the sensors sleep. */
export function live(car: Car): LiveEntry[] {
  const awake = car.speedKmh >= car.wakeSpeedKmh;
  return (car.receiver?.wheels ?? []).map((wheel) => {
    const heard = awake ? car.heard[wheel] : undefined;
    return { wheel, kPa: heard?.kPa ?? null, tempC: heard?.tempC ?? null };
  });
}

export const store = (car: Car, registry: RegistryEntry[]): Car => ({ ...car, registry, heard: {} });
export const clearCodes = (car: Car): Car => ({ ...car, codes: [] });
