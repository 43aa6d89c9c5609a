import type { MonitoringKind, Trigger } from '../names/kinds';

interface Method {
  /** Of a car with sensors, or of one that compares wheel speeds. */
  of: Exclude<MonitoringKind, 'none'>;
  /** What is to wake each sensor; undefined: nothing is done at the wheels. */
  wakes?: Trigger;
  /** The car is sent the IDs, and holds them from then on; else it learns what it hears. */
  sendsIds?: true;
}

/** The ways to teach a car. */
export const methods = {
  drive: { of: 'direct' },
  tool: { of: 'direct', wakes: 'pulsed' },
  air: { of: 'direct', wakes: 'deflation' },
  magnet: { of: 'direct', wakes: 'magnet' },
  write: { of: 'direct', sendsIds: true },
  typed: { of: 'direct', sendsIds: true },
  /** Stores what the wheels turn at as the reference. */
  reset: { of: 'indirect' },
} as const satisfies Record<string, Method>;
export type RelearnMethod = keyof typeof methods;
export const relearnMethods = Object.keys(methods) as [RelearnMethod, ...RelearnMethod[]];

/** All there is to know of a method. */
export const methodOf = (method: RelearnMethod): Method => methods[method];
