import { z } from 'zod';
import { lampStates, triggers } from '../core/names/kinds';
import { lampThresholdsSchema } from '../core/job/schema';
import type { PracticeCar } from './views';
import { walkingOrder } from '../core/names/wheel';
import { key, ofBay, ofJob, ofLead, ofOpenJob, type Contract } from './contract';
import { visitSchema } from './visit';

/** The car itself: waking, reading, writing, by device. */

const wheel = z.enum(walkingOrder);

/** The simulated car as a look at it would show. */
const practiceCarSchema: z.ZodType<PracticeCar> = z.looseObject({
  lamp: z.enum(lampStates),
  speedKmh: z.number(),
  kPa: z.partialRecord(wheel, z.number()),
  tireC: z.partialRecord(wheel, z.number()),
  outdoorC: z.number(),
});

/** What stands in the way of a write to the car. */
const ofWrite = [
  ...ofOpenJob,
  ...ofLead,
  'read-first',
  'supply-voltage-low',
  'write-under-way',
  'run-under-way',
] as const;

const hexId = z.string().regex(/^[0-9A-Fa-f]{1,16}$/, 'an ID has hexadecimal digits only');

export const carContracts = {
  wake: {
    at: ['POST', '/api/jobs/{id}/wake'],
    right: 'record-readings',
    notes: 'nothing',
    of: 'job',
    slow: true,
    summary: 'Wakes a sensor through the activation tool and records what answered',
    body: z.object({ key, wheel, trigger: z.enum(triggers) }),
    answer: visitSchema,
    problems: [
      ...ofOpenJob,
      'no-tool',
      'no-such-wheel',
      'device-unreachable',
      'device-silent',
      'device-refused',
      'device-unclear',
    ],
  },
  readCar: {
    at: ['POST', '/api/jobs/{id}/read-car'],
    right: 'record-readings',
    notes: 'nothing',
    of: 'job',
    slow: true,
    summary: 'Reads IDs, codes, live pressures and supply from the car',
    body: z.object({ key }),
    answer: visitSchema,
    problems: [...ofOpenJob, ...ofLead],
  },
  writeIds: {
    at: ['POST', '/api/jobs/{id}/write-ids'],
    right: 'change-a-car',
    notes: 'nothing',
    of: 'job',
    slow: true,
    summary: 'Sends IDs to the car and reads them back',
    body: z.object({
      key,
      entries: z
        .array(z.object({ wheel, id: hexId.nullable() }))
        .min(1)
        .max(5),
    }),
    answer: visitSchema,
    problems: ofWrite,
  },
  writeThresholds: {
    at: ['POST', '/api/jobs/{id}/write-thresholds'],
    right: 'change-a-car',
    notes: 'nothing',
    of: 'job',
    slow: true,
    summary: 'Sends the car other pressures for its lamp and reads them back',
    body: lampThresholdsSchema.extend({ key }),
    answer: visitSchema,
    problems: ofWrite,
  },
  readBack: {
    at: ['POST', '/api/jobs/{id}/read-back'],
    right: 'record-readings',
    notes: 'nothing',
    of: 'job',
    slow: true,
    summary: 'Reads back what the car holds after a write',
    body: z.object({ write: key }),
    answer: visitSchema,
    problems: [...ofOpenJob, ...ofLead, 'unknown-write', 'write-under-way'],
  },
  clearCodes: {
    at: ['POST', '/api/jobs/{id}/clear-codes'],
    right: 'change-a-car',
    notes: 'nothing',
    of: 'job',
    slow: true,
    summary: 'Clears the codes and reads them back',
    body: z.object({ key }),
    answer: visitSchema,
    problems: [...ofOpenJob, ...ofLead, 'read-first', 'supply-voltage-low', 'write-under-way'],
  },
  practiceCar: {
    at: ['GET', '/api/practice/{id}'],
    right: 'signed-in',
    notes: 'nothing',
    of: 'job',
    summary: 'A look at the simulated car',
    answer: practiceCarSchema,
    problems: [...ofJob, ...ofBay],
  },
  practise: {
    at: ['POST', '/api/practice/{id}'],
    right: 'change-a-car',
    notes: 'nothing',
    of: 'job',
    summary:
      'What hands do in the practice bay: a drive, a night, air, a sensor into the cradle or into a wheel',
    body: z.discriminatedUnion('do', [
      z.object({ do: z.literal('drive'), key }),
      z.object({ do: z.literal('night'), celsius: z.number().min(-60).max(60) }),
      z.object({ do: z.literal('air'), wheel, kPa: z.number().min(0).max(600) }),
      z.object({ do: z.literal('fit'), wheel, serial: z.string().max(64) }),
      z.object({ do: z.literal('cradle'), serials: z.array(z.string().max(64)).max(20) }),
    ]),
    answer: z.union([visitSchema, practiceCarSchema]),
    problems: [...ofOpenJob, ...ofBay],
  },
} as const satisfies Record<string, Contract>;
