import { z } from 'zod';
import { findingCodes } from '../../catalogue/finding';
import { walkingOrder } from '../../names/wheel';
import { tests } from '../../catalogue/tests';
import { lampMeanings } from '../../car/lamp';

/** The open assessment, `hacienda.assessment/1`: what follows from a job. */

const position = z.enum(walkingOrder);

export const findingCodeSchema = z.enum(findingCodes);

export const findingSchema = z.looseObject({
  code: findingCodeSchema,
  wheels: z.array(position),
  probability: z.number().min(0).max(1),
  evidence: z.array(z.looseObject({ observation: z.int().min(0), decibans: z.number() })),
  action: z.string(),
});

const mismatchSchema = z.looseObject({
  wheel: position,
  scanned: z.string(),
  registered: z.string().nullable(),
  kind: z.enum(['mistyped', 'elsewhere', 'absent']),
});

export const assessmentSchema = z.looseObject({
  format: z.literal('hacienda.assessment/1'),
  findings: z.array(findingSchema),
  targets: z.array(
    z.looseObject({
      wheel: position,
      coldKPa: z.number(),
      setNowKPa: z.number().optional(),
      addKPa: z.number().optional(),
      uncertaintyKPa: z.number().optional(),
      cappedAtKPa: z.number().optional(),
      advice: z.enum(['add', 'leave', 'let-out', 'let-cool']).optional(),
    }),
  ),
  lamp: z.looseObject({
    meaning: z.enum(lampMeanings),
    tomorrow: z
      .looseObject({ willLight: z.boolean(), kPa: z.partialRecord(position, z.number()) })
      .optional(),
  }),
  registration: z.looseObject({ ok: z.boolean(), mismatches: z.array(mismatchSchema) }).optional(),
  positions: z.partialRecord(position, position).optional(),
  nextTests: z.array(
    z.looseObject({
      test: z.enum(tests),
      wheel: position.optional(),
      minutes: z.number(),
      bits: z.number(),
      savesMinutes: z.number(),
      about: z.looseObject({ code: findingCodeSchema, wheels: z.array(position) }).optional(),
    }),
  ),
  decision: z.looseObject({
    verdict: z.enum(['act', 'check-first', 'nothing-to-do']),
    on: z.array(z.looseObject({ code: findingCodeSchema, wheels: z.array(position) })),
    wrongMinutes: z.number(),
    leftMinutes: z.number(),
  }),
  inconsistencies: z.array(z.looseObject({ path: z.string(), message: z.string() })).optional(),
});
