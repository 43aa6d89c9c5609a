/** What things of a job can be: each list once. Schemas, types and words are made from these. */

/** How a car watches its tires. */
export const monitoringKinds = ['direct', 'indirect', 'none'] as const;
export type MonitoringKind = (typeof monitoringKinds)[number];

/** What the lamp shows. */
export const lampStates = ['off', 'steady', 'flash-then-steady', 'flash-while-driving'] as const;
export type LampState = (typeof lampStates)[number];

/** What wakes a sensor: what the tool sends, a magnet, or air let out. */
export const triggers = ['pulsed', 'continuous', 'magnet', 'deflation'] as const;
export type Trigger = (typeof triggers)[number];
/** Those that need no tire on a car. */
export const benchTriggers = ['pulsed', 'continuous', 'magnet'] as const satisfies readonly Trigger[];

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
