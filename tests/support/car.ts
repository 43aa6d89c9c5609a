import type { CarWrite, Job, Observation, Tpms } from '../../src/core/job';
import { roadWheels, type Position } from '../../src/core/names/wheel';

/** A car to think about in tests: placard 230 front and 220 rear, lamp on at 175 and off at 200, 433.92 MHz. */
export const ids: Record<Position, string> = {
  LF: '4B07C2D1',
  RF: '4B07D93A',
  RR: '4B11E0F6',
  LR: '4B2A7C08',
  SP: '4B3300AA',
};
export const placard: Record<Position, number> = { LF: 230, RF: 230, RR: 220, LR: 220, SP: 420 };

export const direct: Tpms = {
  kind: 'direct',
  positions: [...roadWheels],
  frequencyMHz: 433.92,
  family: 'kestrel',
  idDigits: 8,
  locates: true,
  wakeSpeedKmh: 40,
  lowOnKPa: 175,
  lowOffKPa: 200,
  highOnKPa: 330,
  regulation: 'US',
};

export function jobWith(
  observations: Observation[],
  more: Partial<Job> & { tpms?: Partial<Tpms> } = {},
): Job {
  const { tpms, ...rest } = more;
  return {
    format: 'hacienda.job/1',
    vehicle: { label: 'Corriente Vela', tpms: { ...direct, ...tpms } },
    placard: [
      { position: 'front', coldKPa: 230 },
      { position: 'rear', coldKPa: 220 },
    ],
    service: { kind: 'none' },
    climate: { nowC: 12, altitudeM: 0, fillPolicy: 'ambient' },
    ...rest,
    observations,
  };
}

/** Minute `n` of the visit. */
export const minute = (n: number): string =>
  new Date(Date.parse('2026-10-14T14:00:00Z') + n * 60_000).toISOString();

export const lamp = (
  n: number,
  state: 'off' | 'steady' | 'flash-then-steady' | 'flash-while-driving',
  bulbCheck = true,
): Observation => ({
  kind: 'lamp',
  at: minute(n),
  state,
  bulbCheck,
});

export const gauge = (n: number, wheel: Position, kPa: number, more: object = {}): Observation => ({
  kind: 'gauge',
  at: minute(n),
  wheel,
  kPa,
  tire: 'cold',
  ...more,
});

export const heard = (n: number, wheel: Position, more: object = {}): Observation => ({
  kind: 'activation',
  at: minute(n),
  wheel,
  trigger: 'pulsed',
  replies: [
    {
      id: ids[wheel],
      kPa: placard[wheel],
      tempC: 12,
      frequencyMHz: 433.92,
      family: 'kestrel',
      battery: 'ok',
      rssiDbm: -48,
      ...more,
    },
  ],
});

export const silent = (
  n: number,
  wheel: Position,
  trigger: 'pulsed' | 'continuous' | 'magnet' = 'pulsed',
): Observation => ({
  kind: 'activation',
  at: minute(n),
  wheel,
  trigger,
  replies: [],
});

export const registry = (n: number, held: Partial<Record<Position, string | null>> = {}): Observation => ({
  kind: 'registry',
  at: minute(n),
  entries: roadWheels.map((wheel) => ({ wheel, id: wheel in held ? (held[wheel] ?? null) : ids[wheel] })),
});

export const live = (n: number, wheel: Position, kPa: number | null, speedKmh: number): Observation => ({
  kind: 'live',
  at: minute(n),
  wheel,
  kPa,
  speedKmh,
});

export const display = (n: number, wheel: Position, kPa: number | null): Observation => ({
  kind: 'display',
  at: minute(n),
  wheel,
  kPa,
});

/** All four gauged at placard, but for what is said. */
export const gauges = (n: number, but: Partial<Record<Position, number>> = {}): Observation[] =>
  roadWheels.map((wheel) => gauge(n, wheel, but[wheel] ?? placard[wheel]));

export const scans = (n: number, but: Partial<Record<Position, Observation[]>> = {}): Observation[] =>
  roadWheels.flatMap((wheel) => but[wheel] ?? [heard(n, wheel)]);

export const lives = (n: number, kPa: number | null | undefined, speedKmh: number): Observation[] =>
  roadWheels.map((wheel) => live(n, wheel, kPa === undefined ? placard[wheel] : kPa, speedKmh));

/** What the car holds at its road wheels, with another ID, or none, at the right rear. */
export const idsHeld = (rr: string | null = ids.RR) =>
  roadWheels.map((wheel) => ({ wheel, id: wheel === 'RR' ? rr : ids[wheel] }));

export type RegistryWrite = Extract<CarWrite, { kind: 'registry' }>;

/** The right ID was sent for the right rear, ten minutes in; nothing came back yet. */
export const registryWrite = (more: Partial<RegistryWrite> = {}): RegistryWrite => ({
  kind: 'registry',
  key: '0190a000-0000-7000-8000-000000000001',
  askedAt: minute(10),
  asked: idsHeld(),
  before: idsHeld('90FFE0A1'),
  ...more,
});
