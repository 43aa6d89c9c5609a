import { z } from 'zod';

/** How a gauge can stand, by its checks. */
export const calibrationStatuses = [
  'good',
  'overdue',
  'out-of-tolerance',
  'never-checked',
  'retired',
] as const;

const kPa = z.number().min(0).max(2000);

export const instrumentKinds = ['digital', 'dial', 'stick', 'air-line'] as const;

export const checkPointSchema = z.object({ way: z.enum(['up', 'down']), referenceKPa: kPa, readKPa: kPa });
export type CheckPoint = z.infer<typeof checkPointSchema>;

/** A comparison with a reference at several points, up and then down again. */
const checkSchema = z.looseObject({
  key: z.string().min(1).max(64),
  at: z.iso.datetime({ offset: true }),
  by: z.string(),
  /** What it was compared with. */
  reference: z.string(),
  /** Expanded uncertainty (k = 2) of the reference, kPa. */
  referenceUncertaintyKPa: z.number().min(0).max(50),
  points: z.array(checkPointSchema).max(40),
});
export type CalibrationCheck = z.infer<typeof checkSchema>;

/** A gauge of the shop, with the checks it went through, oldest first. */
export const instrumentSchema = z.looseObject({
  id: z.string().min(1).max(64),
  name: z.string(),
  kind: z.enum(instrumentKinds),
  /** The smallest step it shows, kPa. */
  resolutionKPa: z.number().min(0.01).max(50),
  /** Out of use: it stays on file for the readings it made. */
  retired: z.boolean(),
  checks: z.array(checkSchema).max(200),
});
export type Instrument = z.infer<typeof instrumentSchema>;
