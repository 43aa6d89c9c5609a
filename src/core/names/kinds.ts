/** What things of a job can be: each list once. Schemas, types and words are made from these. */

/** How a car watches its tires. */
export const monitoringKinds = ['direct', 'indirect', 'none'] as const;
export type MonitoringKind = (typeof monitoringKinds)[number];

/** The two ways to aim: at placard at the temperature of now, or at the coldest hour to come. */
export const fillPolicies = ['ambient', 'morning'] as const;
export type FillPolicy = (typeof fillPolicies)[number];

/** What the lamp shows. */
export const lampStates = ['off', 'steady', 'flash-then-steady', 'flash-while-driving'] as const;
export type LampState = (typeof lampStates)[number];

/** What wakes a sensor: what the tool sends, a magnet, or air let out. */
export const triggers = ['pulsed', 'continuous', 'magnet', 'deflation'] as const;
export type Trigger = (typeof triggers)[number];
/** Those that need no tire on a car. */
export const benchTriggers = ['pulsed', 'continuous', 'magnet'] as const satisfies readonly Trigger[];

/** What of a tire or stem is told by a look. */
export const signs = [
  'flat',
  'object',
  'sidewall',
  'stem-damaged',
  'stem-metal',
  'stem-rubber',
  'odd-size',
] as const;
/** Those that do not go away by filling the tire. */
export const damageSigns = [
  'flat',
  'object',
  'sidewall',
  'stem-damaged',
] as const satisfies readonly (typeof signs)[number][];
export type DamageSign = (typeof damageSigns)[number];

/** What is done to a car that changes what is likely. */
export const workKinds = [
  'none',
  'tires-fitted',
  'rotation',
  'wheels-swapped',
  'sensor-replaced',
  'repair',
] as const;
export type WorkKind = (typeof workKinds)[number];

/** How a car was driven before its tires were gauged. */
export const drives = ['town', 'road', 'motorway'] as const;
export type Drive = (typeof drives)[number];

/** Only an open job is worked on. A cancelled one can be opened again, one handed over is followed up by another. */
export const jobStates = ['open', 'handed-over', 'cancelled'] as const;
export type JobState = (typeof jobStates)[number];
