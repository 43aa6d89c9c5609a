import { z } from 'zod';
import { triggers } from '../core/names/kinds';
import { relearnMethods } from '../core/relearn/method';
import { cueSchema, procedureSchema } from '../core/relearn/procedure/schema';
import { eventSchema, happeningSchema } from '../core/relearn/run/schema';
import { walkingOrder } from '../core/names/wheel';
import { devicesAtHandSchema, key, ofBay, ofLead, ofOpenJob, type Contract } from './contract';

/** Teaching a car: the run of a procedure, told event by event. */

const deviceProblems = ['device-unreachable', 'device-silent', 'device-refused', 'device-unclear'] as const;

/** A run as a screen gets it: the facts. Where it stands is worked out from them. */
export const runViewSchema = z.object({
  key,
  jobId: z.uuid(),
  jobNumber: z.int(),
  vehicle: z.object({ label: z.string(), plate: z.string() }),
  procedure: procedureSchema,
  startedAt: z.string(),
  by: z.string(),
  events: z.array(eventSchema),
  /** Since it was started, s, by the shop's clock: that of a tablet may be wrong. */
  elapsedS: z.number(),
  /** The job is handed over: it can be read, and no more. */
  closed: z.boolean(),
  devices: devicesAtHandSchema,
  /** Before air is let out: how far which wheels are filled, kPa. */
  fillFirst: z.array(z.object({ kPa: z.number(), wheels: z.array(z.enum(walkingOrder)) })),
  /** How many hexadecimal digits an ID of this car has, where that is known. */
  idDigits: z.int().optional(),
});
export type RunView = z.infer<typeof runViewSchema>;

/** One event as it is told: how long ago it happened, by the teller's own stopwatch. */
const toldSchema = z.object({
  key,
  agoS: z.number().min(0).max(86_400),
  happening: happeningSchema,
});
export type Told = z.infer<typeof toldSchema>;

const proposedCueSchema = cueSchema.pick({ cue: true, during: true, means: true }).strip();

export const flagSchema = z.object({
  key,
  name: z.string(),
  version: z.int().nullable(),
  runKey: key,
  at: z.string(),
  by: z.string(),
  step: z.string(),
  instead: z.string(),
  proposes: proposedCueSchema.nullable(),
  /** What was said to it: by whom, and as which version it was taken; null: it was left. */
  answer: z.object({ by: z.string(), at: z.string(), takenAs: z.int().nullable() }).optional(),
});

const ofRun = [...ofOpenJob, 'unknown-run', 'run-ended', 'run-too-long'] as const;

export const relearnContracts = {
  startRun: {
    at: ['POST', '/api/jobs/{id}/runs'],
    right: 'change-a-car',
    notes: 'nothing',
    of: 'job',
    summary: 'Starts a relearn at a car; one goes on at a time',
    body: z.object({
      key,
      /** Its name on file; or the relearn that is tried again, by waiting, switching and driving. */
      procedure: z.string().min(1).max(120).optional(),
      retryOf: key.optional(),
    }),
    answer: runViewSchema,
    problems: [...ofOpenJob, 'unknown-procedure', 'run-under-way', 'write-under-way', 'unknown-run'],
  },
  run: {
    at: ['GET', '/api/runs/{id}'],
    right: 'signed-in',
    notes: { what: 'relearn' },
    of: 'run',
    summary: 'A relearn with all that happened in it',
    answer: runViewSchema,
    problems: ['unknown-run'],
  },
  tellRun: {
    at: ['POST', '/api/runs/{id}/events'],
    right: 'record-readings',
    notes: 'nothing',
    of: 'run',
    summary: 'Tells what happened in a relearn, in the order it happened',
    body: z.object({ told: z.array(toldSchema).min(1).max(100) }),
    answer: runViewSchema,
    problems: [...ofRun, 'no-such-wheel', 'run-under-way'],
  },
  wakeInRun: {
    at: ['POST', '/api/runs/{id}/wake'],
    right: 'record-readings',
    notes: 'nothing',
    of: 'run',
    slow: true,
    summary: 'Wakes a sensor through the activation tool and tells the relearn what answered',
    body: z.object({
      key,
      wheel: z.enum(walkingOrder),
      trigger: z.enum(triggers),
    }),
    answer: runViewSchema,
    problems: [...ofRun, 'no-tool', 'no-such-wheel', ...deviceProblems],
  },
  readInRun: {
    at: ['POST', '/api/runs/{id}/read'],
    right: 'record-readings',
    notes: 'nothing',
    of: 'run',
    slow: true,
    summary: 'Reads the car and tells the relearn what it holds, or how fast it goes',
    body: z.object({ key, what: z.enum(['registry', 'speed']) }),
    answer: runViewSchema,
    problems: [...ofRun, ...ofLead],
  },
  writeInRun: {
    at: ['POST', '/api/runs/{id}/write'],
    right: 'change-a-car',
    notes: 'nothing',
    of: 'run',
    slow: true,
    summary: 'Sends the IDs of the relearn to the car and tells it what the car answered',
    body: z.object({ key }),
    answer: runViewSchema,
    problems: [...ofRun, ...ofLead, 'supply-voltage-low', 'write-under-way', 'read-first'],
  },
  flagProcedure: {
    at: ['POST', '/api/runs/{id}/flag'],
    right: 'record-readings',
    notes: 'nothing',
    of: 'run',
    summary: 'Says that a procedure is wrong for a car, and what the car did instead',
    body: z.object({
      key,
      instead: z.string().trim().min(3).max(500),
      /** A cue it lacks, where somebody knows what the car means by it. */
      proposes: proposedCueSchema.optional(),
    }),
    answer: z.null(),
    problems: ['unknown-run', 'not-allowed', 'key-in-use'],
  },
  procedureFlags: {
    at: ['GET', '/api/procedures/flags'],
    right: 'signed-in',
    notes: 'nothing',
    summary: 'What was found wrong with procedures at cars, the newest first',
    answer: z.array(flagSchema),
    problems: [],
  },
  answerFlag: {
    at: ['POST', '/api/procedures/flags/{id}'],
    right: 'manage-shop',
    notes: 'nothing',
    of: 'flag',
    summary: 'Takes what a flag proposes into the next version of its procedure, or leaves it',
    body: z.object({ take: z.boolean() }),
    answer: z.array(flagSchema),
    problems: ['not-allowed', 'unknown-flag', 'unknown-procedure'],
  },
  tryDry: {
    at: ['POST', '/api/practice/{id}/dry'],
    right: 'manage-shop',
    notes: 'nothing',
    of: 'job',
    slow: true,
    summary: 'Lets a simulated car feel, answer and be read, with nothing of it recorded',
    body: z.discriminatedUnion('do', [
      z.object({
        do: z.literal('hands'),
        happening: happeningSchema,
        method: z.enum(relearnMethods),
        /** What is typed into its menu. */
        typed: z.partialRecord(z.enum(walkingOrder), z.string().max(64)),
      }),
      z.object({ do: z.literal('wake'), wheel: z.enum(walkingOrder) }),
      z.object({ do: z.literal('read') }),
      z.object({ do: z.literal('listen') }),
    ]),
    answer: z.object({
      ids: z.array(z.string()),
      entries: z.array(z.object({ wheel: z.enum(walkingOrder), id: z.string().nullable() })),
      cues: z.array(z.object({ n: z.int(), cue: z.string() })),
    }),
    problems: ['unknown-job', 'not-allowed', ...ofBay],
  },
  hearCar: {
    at: ['GET', '/api/runs/{id}/cues'],
    right: 'signed-in',
    notes: 'nothing',
    of: 'run',
    summary: 'What a simulated car said lately: its horn, its lamps, its messages',
    answer: z.object({ cues: z.array(z.object({ n: z.int(), cue: z.string() })) }),
    problems: ['unknown-run', ...ofBay],
  },
} as const satisfies Record<string, Contract>;
