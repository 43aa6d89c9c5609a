import { z } from 'zod';
import { walkingOrder, type Position } from '../../names/wheel';

/**
 * Where a car's tire-pressure receiver keeps its things: its CAN identifiers, the data identifiers and
 * the layout of each. It belongs to the vehicle's profile; without one a car cannot be read by the lead.
 *
 * - registry: per wheel in walking order, `idBytes` bytes; all zero is "none".
 * - live: per wheel two bytes kPa × 10 (0xFFFF: nothing), one byte °C + 60.
 * - thresholds, where it takes them: two bytes kPa × 10 for lamp on, two for lamp off.
 * - speed: two bytes km/h × 10. supply: two bytes mV, then 1 for engine on, 0 for off.
 */
export const receiverSchema = z.object({
  requestId: z.int().min(0).max(0x7ff),
  answerId: z.int().min(0).max(0x7ff),
  wheels: z.array(z.enum(walkingOrder)).min(1),
  idBytes: z.int().min(1).max(8),
  registry: z.int().min(0).max(0xffff),
  live: z.int().min(0).max(0xffff),
  speed: z.int().min(0).max(0xffff),
  supply: z.int().min(0).max(0xffff),
  thresholds: z.int().min(0).max(0xffff).optional(),
  /** What the maker's codes are about, and at which wheel. */
  codes: z.record(z.string(), z.object({ about: z.string(), wheel: z.enum(walkingOrder).optional() })),
});

export type Receiver = z.infer<typeof receiverSchema>;

export type RegistryEntry = {
  wheel: Position;
  id: string | null;
};

export type LiveEntry = {
  wheel: Position;
  kPa: number | null;
  tempC: number | null;
};

const nothing = 0xffff;
const temperatureOffset = 60;

export function encodeRegistry(receiver: Receiver, entries: readonly RegistryEntry[]): Uint8Array {
  const bytes = receiver.wheels.flatMap((wheel) => {
    const id = entries.find((entry) => entry.wheel === wheel)?.id ?? null;
    const value = id === null ? 0n : BigInt(`0x${id.replace(/[\s-]/g, '')}`);
    return Array.from({ length: receiver.idBytes }, (_, at) =>
      Number((value >> BigInt(8 * (receiver.idBytes - 1 - at))) & 0xffn),
    );
  });
  return Uint8Array.from(bytes);
}

/** Undefined where the length is not that of the layout. */
export function decodeRegistry(receiver: Receiver, data: Uint8Array): RegistryEntry[] | undefined {
  if (data.length !== receiver.wheels.length * receiver.idBytes) return undefined;
  return receiver.wheels.map((wheel, place) => {
    const bytes = data.subarray(place * receiver.idBytes, (place + 1) * receiver.idBytes);
    const id = [...bytes].map((byte) => byte.toString(16).toUpperCase().padStart(2, '0')).join('');
    return { wheel, id: /^0*$/.test(id) ? null : id };
  });
}

export function encodeLive(receiver: Receiver, entries: readonly LiveEntry[]): Uint8Array {
  return Uint8Array.from(
    receiver.wheels.flatMap((wheel) => {
      const entry = entries.find((candidate) => candidate.wheel === wheel);
      const kPa = entry?.kPa == null ? nothing : Math.round(entry.kPa * 10);
      return [kPa >> 8, kPa & 0xff, Math.round((entry?.tempC ?? 0) + temperatureOffset) & 0xff];
    }),
  );
}

export function decodeLive(receiver: Receiver, data: Uint8Array): LiveEntry[] | undefined {
  if (data.length !== receiver.wheels.length * 3) return undefined;
  return receiver.wheels.map((wheel, place) => {
    const [high = 0, low = 0, warm = 0] = data.subarray(place * 3, place * 3 + 3);
    const raw = (high << 8) | low;
    return raw === nothing
      ? { wheel, kPa: null, tempC: null }
      : { wheel, kPa: raw / 10, tempC: warm - temperatureOffset };
  });
}

/** The pressures at which the lamp comes on and goes out, kPa. */
export type LampThresholds = {
  lowOnKPa: number;
  lowOffKPa: number;
};

export const encodeThresholds = ({ lowOnKPa, lowOffKPa }: LampThresholds): Uint8Array =>
  Uint8Array.from(
    [lowOnKPa, lowOffKPa].map((kPa) => Math.round(kPa * 10)).flatMap((raw) => [raw >> 8, raw & 0xff]),
  );

export function decodeThresholds(data: Uint8Array): LampThresholds | undefined {
  const [a = 0, b = 0, c = 0, d = 0] = data;
  if (data.length !== 4) return undefined;
  return { lowOnKPa: ((a << 8) | b) / 10, lowOffKPa: ((c << 8) | d) / 10 };
}
