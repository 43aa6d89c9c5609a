import { z } from 'zod';
import { partSchema } from '../core/sensor/part/schema';
import { sensorServiceSchema } from '../core/job/schemas/sensor-service';
import { programmingModes } from '../core/sensor/programming';
import { walkingOrder } from '../core/names/wheel';
import { key, ofOpenJob, type Contract } from './contract';
import { visitSchema } from './visit';

/** The catalogue of parts, and programming universal sensors. */

const wheel = z.enum(walkingOrder);
const sensorId = z
  .string()
  .trim()
  .regex(/^[0-9A-Fa-f][0-9A-Fa-f\s-]{0,23}$/, 'an ID has hexadecimal digits only');
const deviceProblems = ['device-unreachable', 'device-silent', 'device-refused', 'device-unclear'] as const;

const askedSchema = z.object({
  key,
  wheel,
  mode: z.enum(programmingModes),
  /** Its article number. */
  part: z.string().trim().min(1).max(120),
  /** What it is to be; a new ID is made here where none is given. */
  id: sensorId.optional(),
});
export type ProgrammingAsked = z.infer<typeof askedSchema>;

const withId = ({ mode, id }: ProgrammingAsked): boolean => mode === 'new' || id !== undefined;

const ofProgramming = [
  ...ofOpenJob,
  'no-such-wheel',
  'not-in-catalogue',
  'wrong-part',
  'id-elsewhere',
] as const;

/** A simulated sensor of the practice box. */
const boxed = z.looseObject({
  serial: z.string(),
  part: z.string(),
  id: z.string().nullable(),
  inCradle: z.boolean(),
  fitted: z.boolean(),
});

export const programmingContracts = {
  parts: {
    at: ['GET', '/api/parts'],
    right: 'signed-in',
    notes: 'nothing',
    summary: 'The catalogue of replacement sensors',
    answer: z.array(partSchema),
    problems: [],
  },
  saveParts: {
    at: ['POST', '/api/parts'],
    right: 'manage-shop',
    notes: 'nothing',
    summary: 'Takes parts into the catalogue, by article number',
    body: z.array(partSchema).min(1).max(1000),
    answer: z.array(partSchema),
    problems: ['not-allowed'],
  },
  programSensor: {
    at: ['POST', '/api/jobs/{id}/program'],
    right: 'change-a-car',
    notes: 'nothing',
    of: 'job',
    slow: true,
    summary: 'Programs the sensor in the cradle and reads it back',
    body: askedSchema.refine(withId, { path: ['id'], message: 'say which ID' }),
    answer: visitSchema,
    problems: [
      ...ofProgramming,
      ...deviceProblems,
      'no-programmer',
      'cradle-empty',
      'cradle-crowded',
      'sensor-spent',
      'write-under-way',
    ],
  },
  noteProgrammed: {
    at: ['POST', '/api/jobs/{id}/programmed'],
    right: 'change-a-car',
    notes: 'nothing',
    of: 'job',
    summary: 'Notes a sensor that was programmed with another tool, and what it was read back as',
    body: askedSchema.extend({
      id: sensorId,
      /** Its article number; it need not be in the catalogue. */
      part: z.string().trim().min(1).max(120).optional(),
      /** Null: it was read, and sent none. Missing: nobody read it. */
      readBack: sensorId.nullable().optional(),
    }),
    answer: visitSchema,
    problems: ofProgramming,
  },
  readSensorBack: {
    at: ['POST', '/api/jobs/{id}/program/read-back'],
    right: 'record-readings',
    notes: 'nothing',
    of: 'job',
    slow: true,
    summary: 'Reads back what a programmed sensor is; typed, where another tool read it',
    body: z.object({ write: key, typed: sensorId.nullable().optional() }),
    answer: visitSchema,
    problems: [
      ...ofOpenJob,
      ...deviceProblems,
      'no-programmer',
      'cradle-empty',
      'cradle-crowded',
      'unknown-write',
      'write-under-way',
    ],
  },
  serviceSensor: {
    at: ['POST', '/api/jobs/{id}/services'],
    right: 'record-readings',
    notes: 'nothing',
    of: 'job',
    summary: 'Keeps how the sensor of a wheel was serviced, with a picture of its printed ID',
    /** `at`: when it was done, where it is sent later; never after it arrives. */
    body: sensorServiceSchema.omit({ by: true }).partial({ at: true }).extend({ key }),
    answer: visitSchema,
    problems: [...ofOpenJob, 'no-such-wheel'],
  },
  practiceBox: {
    at: ['GET', '/api/practice/box'],
    right: 'signed-in',
    notes: 'nothing',
    summary: 'The simulated sensors of the practice box',
    answer: z.object({ sensors: z.array(boxed) }),
    problems: ['no-practice', ...deviceProblems],
  },
} as const satisfies Record<string, Contract>;
