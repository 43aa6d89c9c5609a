import { z } from 'zod';
import { failure, success, type Result } from '../../core/result';
import { walkingOrder, type Position } from '../../core/names/wheel';
import { callDevice, type Address } from '../json-rpc';

/**
 * The bay of simulated cars: what a pair of hands does to a real car (plug in the lead, let air in,
 * look at the dash, drive off, park). Only for practice; a real bay has none of this.
 */
const carSchema = z.object({
  vin: z.string(),
  lamp: z.enum(['off', 'steady', 'flash-then-steady', 'flash-while-driving']),
  speedKmh: z.number(),
  outdoorC: z.number(),
  kPa: z.partialRecord(z.enum(walkingOrder), z.number()),
  tireC: z.partialRecord(z.enum(walkingOrder), z.number()),
});
export type SimulatedCar = z.infer<typeof carSchema>;

const leadSchema = z.object({ host: z.string(), port: z.number() });

async function ask<Value>(
  address: Address,
  method: string,
  parameters: object,
  schema: z.ZodType<Value>,
): Promise<Result<Value>> {
  const answer = await callDevice(address, 'The practice bay', method, parameters);
  if (!answer.ok) return answer;
  const parsed = schema.safeParse(answer.value);
  return parsed.success
    ? success(parsed.data)
    : failure('device-unclear', 'The practice bay answered nonsense.');
}

export const plugIn = (bay: Address, vin: string) => ask(bay, 'bay/lead', { vin }, leadSchema);
export const lookAt = (bay: Address, vin: string) => ask(bay, 'bay/look', { vin }, carSchema);
export const driveOff = (bay: Address, vin: string, speedKmh: number, minutes: number) =>
  ask(bay, 'bay/drive', { vin, speedKmh, minutes }, carSchema);
export const park = (bay: Address, vin: string) => ask(bay, 'bay/park', { vin }, carSchema);
export const setAir = (bay: Address, vin: string, wheel: Position, kPa: number) =>
  ask(bay, 'bay/air', { vin, wheel, kPa }, carSchema);
/** What hands do, or did so long ago, that the car feels: a switch, a pedal, a menu, air, a magnet, the road. */
export const feel = (bay: Address, vin: string, hands: object, agoMs = 0) =>
  ask(bay, 'bay/hands', { vin, hands, agoMs }, carSchema);

/** A sensor woken, and what the car holds: for a try of which nothing is recorded. */
const wokenSchema = z.object({ replies: z.array(z.looseObject({ id: z.string() })) });
export const wake = (bay: Address, vin: string, wheel: Position) =>
  ask(bay, 'bay/wake', { vehicle: vin, wheel }, wokenSchema);
const registrySchema = z.object({
  entries: z.array(z.object({ wheel: z.enum(walkingOrder), id: z.string().nullable() })),
});
export const readRegistry = (bay: Address, vin: string) => ask(bay, 'bay/registry', { vin }, registrySchema);

/** What the car said, numbered, the oldest first: horn, lamps, messages. */
const saidSchema = z.object({ cues: z.array(z.object({ n: z.int(), cue: z.string() })) });
export type SaidLately = z.infer<typeof saidSchema>;
export const listen = (bay: Address, vin: string) => ask(bay, 'bay/cues', { vin }, saidSchema);

/** The universal sensors of the practice box. */
const boxSchema = z.object({
  sensors: z.array(
    z.looseObject({
      serial: z.string(),
      part: z.string(),
      id: z.string().nullable(),
      inCradle: z.boolean(),
      fitted: z.boolean(),
    }),
  ),
});
export type Box = z.infer<typeof boxSchema>;
export const lookIntoBox = (bay: Address) => ask(bay, 'bay/box', {}, boxSchema);
export const layInCradle = (bay: Address, serials: readonly string[]) =>
  ask(bay, 'bay/cradle', { serials }, boxSchema);
export const fit = (bay: Address, vin: string, wheel: Position, serial: string) =>
  ask(bay, 'bay/fit', { vin, wheel, serial }, carSchema);

/** Lets a night pass: the car stands until it is as cold as the air, and is driven off in the morning. */
export const letNightPass = (bay: Address, vin: string, celsius: number, speedKmh: number) =>
  ask(bay, 'bay/night', { vin, celsius, speedKmh }, carSchema);
