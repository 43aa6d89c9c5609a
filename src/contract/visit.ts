import { z } from 'zod';
import { pricesSchema } from '../core/job/schemas/replacement';
import type { Assessment } from '../core/judgement/assessment';
import { assessmentSchema, findingCodeSchema, findingSchema } from '../core/judgement/assessment/schema';
import { repairOutcomeSchema } from '../core/job/repair-outcome/schema';
import { instrumentSchema } from '../core/job/schemas/instrument';
import {
  climateSchema,
  fittedSchema,
  jobSchema,
  loadCaseSchema,
  observationSchema,
  placardSchema,
  repairsSchema,
  serviceSchema,
  takenBackSchema,
  tpmsSchema,
} from '../core/job/schema';
import { lampStates, jobStates } from '../core/names/kinds';
import { benchLinkSchema, signatureSchema } from '../core/job/notes';
import { proofSchema } from '../core/job/schemas/proof';
import { mostPutOff, putOffSchema } from '../core/job/schemas/put-off';
import { replacementSchema } from '../core/job/schemas/replacement';
import { standings } from '../core/visit/proof/standing';
import { checkedByHand, type Move } from '../core/visit';
import type { FieldChange, HistoryLine } from '../core/visit/history';
import type { VisitView, YardLine } from './views';
import { walkingOrder } from '../core/names/wheel';
import { devicesAtHandSchema, key, ofJob, ofOpenJob, type Contract } from './contract';

/** Jobs: from booking in to handing over. */

const wheel = z.enum(walkingOrder);
const state = z.enum(jobStates);
export const experienceSchema = z.partialRecord(
  findingCodeSchema,
  z.object({ had: z.number(), of: z.number(), expected: z.number() }),
);

/** A visit, as a screen gets it: the facts. */
export const visitSchema = z.object({
  id: z.uuid(),
  number: z.int(),
  vehicleId: z.uuid(),
  version: z.int(),
  revision: z.int(),
  state,
  job: jobSchema,
  experience: experienceSchema.optional(),
  prices: pricesSchema.optional(),
  sensorCurve: z.object({ shape: z.number(), scaleYears: z.number(), ended: z.int() }).optional(),
  codes: z.record(z.string(), z.object({ about: z.string(), wheel: wheel.optional() })),
  devices: devicesAtHandSchema,
  gauges: z.array(instrumentSchema),
}) satisfies z.ZodType<VisitView>;

const alone = <Kind extends string>(...kinds: Kind[]) =>
  z.object({ kind: z.enum(kinds as [Kind, ...Kind[]]) });

const assessment: z.ZodType<Assessment> = assessmentSchema;

/** The one thing to do next. */
export const moveSchema: z.ZodType<Move> = z.union([
  alone('read-car', 'write-ids', 'read-back', 'look-at-lamp', 'hand-over', 'done'),
  z.object({ kind: z.enum(['clear-codes', 'drive']), tries: z.int() }),
  z.object({ kind: z.literal('support-supply'), how: z.string() }),
  z.object({ kind: z.enum(['program', 'service', 'explain']), wheel }),
  z.object({ kind: z.literal('relearn'), failed: z.int() }),
  z.object({ kind: z.literal('placard'), asked: z.string().optional() }),
  z.object({ kind: z.literal('gauge'), wheel, again: z.boolean(), asked: z.string().optional() }),
  z.object({ kind: z.literal('fill'), wheel, addKPa: z.number() }),
  z.object({ kind: z.literal('wake'), wheel, tries: z.int() }),
  z.object({ kind: z.literal('look'), wheel }),
  z.object({ kind: z.literal('check'), test: z.enum(checkedByHand), wheel: wheel.optional() }),
  z.object({ kind: z.literal('act'), finding: findingSchema }),
]);

const yardLineSchema: z.ZodType<YardLine> = z.object({
  id: z.uuid(),
  number: z.int(),
  label: z.string(),
  plate: z.string(),
  state,
  openedAt: z.string(),
  openedBy: z.string(),
  handedOverAt: z.string().nullable(),
  lamp: z.enum([...lampStates, 'not-seen']),
  headline: z.string(),
  standing: z.enum(standings),
  move: moveSchema,
  unreadable: z.string().optional(),
});

const historyLineSchema: z.ZodType<HistoryLine> = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('recorded'),
    at: z.string(),
    by: z.string(),
    key,
    observation: observationSchema,
    corrected: z.boolean().optional(),
    takenBack: takenBackSchema.optional(),
  }),
  z.object({
    kind: z.literal('changed'),
    at: z.string(),
    by: z.string(),
    changes: z.array(
      z.object({
        field: z.string(),
        from: z.string().nullable(),
        to: z.string().nullable(),
      }) satisfies z.ZodType<FieldChange>,
    ),
  }),
]);

const bookingSchema = z.object({
  key,
  vehicle: z.object({
    label: z.string().trim().min(1, 'name the vehicle').max(120),
    vin: z.string().max(40).optional(),
    plate: z.string().max(20).optional(),
    modelYear: z.int().min(1950).max(2100).optional(),
    odometerKm: z.number().min(0).max(3_000_000).optional(),
    profile: z.string().max(64).optional(),
    tpms: tpmsSchema.optional(),
  }),
  /** Its kind is not on file: it is kept under this name, with the monitoring and placard of this booking, for the next one. */
  keepKindAs: z.string().trim().min(1).max(120).optional(),
  /** The job, handed over, that this one follows up. */
  followUpOf: z.uuid().optional(),
  /** The wheel set that is to go on when the car comes. */
  plannedSet: z.uuid().optional(),
  placard: placardSchema.optional(),
  complaint: z.string().max(2000).optional(),
  customer: z.string().trim().max(120).optional(),
  orderNumber: z.string().trim().max(40).optional(),
  service: serviceSchema.optional(),
  climate: climateSchema.optional(),
  observations: z
    .array(z.object({ key, observation: observationSchema }))
    .max(10)
    .optional(),
});
export type Booking = z.infer<typeof bookingSchema>;

const changesSchema = z.strictObject({
  placard: placardSchema.optional(),
  loadCase: loadCaseSchema.optional(),
  fitted: fittedSchema.optional(),
  repairs: repairsSchema.optional(),
  putOff: z.array(putOffSchema).max(mostPutOff).optional(),
  /** The shop says when, and who. */
  replacement: replacementSchema.omit({ at: true, by: true }).optional(),
  service: serviceSchema.optional(),
  climate: climateSchema.optional(),
  odometerKm: z.number().min(0).max(3_000_000).optional(),
  complaint: z.string().max(2000).optional(),
  customer: z.string().trim().max(120).optional(),
  orderNumber: z.string().trim().max(40).optional(),
  /** What the car is; empty text where that is not known after all. */
  vehicle: z
    .strictObject({
      label: z.string().trim().min(1, 'name the vehicle').max(120),
      vin: z.string().trim().max(40),
      plate: z.string().trim().max(20),
      modelYear: z.int().min(1950).max(2100).nullable(),
      profile: z.string().max(64),
      tpms: tpmsSchema,
    })
    .partial()
    .optional(),
  /** When the notes from the bench were made that are taken back. */
  notesTakenBack: z.array(z.string().max(40)).max(50).optional(),
});
export type HeaderChanges = z.infer<typeof changesSchema>;

const noteSchema = z.object({
  key,
  /** What was worked out, as a sentence. */
  text: z.string().trim().min(1).max(500),
  /** Where it can be worked out again: a path of this app, never an address elsewhere. */
  link: benchLinkSchema,
});
export type BenchNote = z.infer<typeof noteSchema>;

export const visitContracts = {
  assess: {
    at: ['POST', '/api/assess'],
    right: 'anybody',
    forPrograms: true,
    notes: 'nothing',
    summary: 'What follows from a job file',
    body: jobSchema,
    answer: assessment,
    problems: ['invalid-job', 'json-only', 'too-large', 'too-long', 'too-many-requests', 'busy'],
  },
  yard: {
    at: ['GET', '/api/yard'],
    right: 'signed-in',
    notes: 'nothing',
    summary: "Today's vehicles, the newest first",
    answer: z.array(yardLineSchema),
    problems: [],
  },
  bookIn: {
    at: ['POST', '/api/jobs'],
    right: 'signed-in',
    notes: 'nothing',
    summary: 'Books a car in',
    body: bookingSchema,
    answer: z.object({ id: z.uuid(), number: z.int() }),
    problems: [
      'unknown-profile',
      'unknown-set',
      'already-open',
      'unknown-job',
      'not-allowed',
      'no-such-wheel',
      'key-in-use',
    ],
  },
  importJob: {
    at: ['POST', '/api/jobs/import'],
    right: 'record-readings',
    notes: 'nothing',
    slow: true,
    summary: 'Takes in a job file; the same file again finds the job it made',
    body: jobSchema,
    answer: z.object({ id: z.uuid(), already: z.boolean() }),
    problems: [
      'invalid-job',
      'key-in-use',
      'handed-over',
      'cancelled',
      'not-allowed',
      'too-large',
      'job-full',
    ],
  },
  job: {
    at: ['GET', '/api/jobs/{id}'],
    right: 'signed-in',
    notes: { what: 'job', of: 'job' },
    of: 'job',
    summary: 'The facts of a job',
    answer: visitSchema,
    problems: ofJob,
  },
  editJob: {
    at: ['PATCH', '/api/jobs/{id}'],
    right: 'signed-in',
    notes: 'nothing',
    of: 'job',
    summary: 'Corrects what was entered about the visit',
    body: z.object({ key, version: z.int().min(1), changes: changesSchema }),
    answer: visitSchema,
    problems: [...ofJob, 'handed-over', 'cancelled', 'stale', 'unknown-profile'],
  },
  verdict: {
    at: ['GET', '/api/jobs/{id}/verdict'],
    right: 'signed-in',
    notes: { what: 'job', of: 'job' },
    of: 'job',
    summary: 'What follows from a job, what proves it, and the next move',
    answer: z.object({ assessment, proof: proofSchema, move: moveSchema }),
    problems: ofJob,
  },
  jobFile: {
    at: ['GET', '/api/jobs/{id}/file'],
    right: 'signed-in',
    notes: { what: 'job file', of: 'job' },
    of: 'job',
    summary: 'The job as an open job file',
    answer: jobSchema,
    problems: ofJob,
  },
  record: {
    at: ['POST', '/api/jobs/{id}/observations'],
    right: 'signed-in',
    notes: 'nothing',
    of: 'job',
    summary: 'Records what was seen',
    body: z.object({ key, observation: observationSchema, replaces: key.optional() }),
    answer: visitSchema,
    problems: [...ofOpenJob, 'no-such-wheel', 'nothing-to-correct', 'already-corrected', 'job-full'],
  },
  takeBack: {
    at: ['POST', '/api/jobs/{id}/take-back'],
    right: 'record-readings',
    notes: 'nothing',
    of: 'job',
    summary: 'Takes back what was recorded by mistake: kept, and out of all judgement',
    body: z.object({ key, observation: key, reason: z.string().trim().min(1).max(500) }),
    answer: visitSchema,
    problems: [...ofOpenJob, 'nothing-to-correct', 'already-corrected'],
  },
  cancelJob: {
    at: ['POST', '/api/jobs/{id}/cancel'],
    right: 'signed-in',
    notes: 'nothing',
    of: 'job',
    summary: 'Cancels a job; all that was recorded stays',
    body: z.object({ key, version: z.int().min(1), reason: z.string().trim().min(3).max(500) }),
    answer: visitSchema,
    problems: [...ofJob, 'handed-over', 'stale', 'run-under-way'],
  },
  reopenJob: {
    at: ['POST', '/api/jobs/{id}/reopen'],
    right: 'signed-in',
    notes: 'nothing',
    of: 'job',
    summary: 'Opens a cancelled job again',
    body: z.object({ key, version: z.int().min(1) }),
    answer: visitSchema,
    problems: [...ofJob, 'handed-over', 'stale'],
  },
  history: {
    at: ['GET', '/api/jobs/{id}/history'],
    right: 'signed-in',
    notes: { what: 'job', of: 'job' },
    of: 'job',
    summary: 'All that was recorded on a job and changed about it, the newest first',
    answer: z.array(historyLineSchema),
    problems: ofJob,
  },
  confirm: {
    at: ['POST', '/api/jobs/{id}/confirm'],
    right: 'record-readings',
    notes: 'nothing',
    of: 'job',
    summary: 'Says what the parts of the car turned out to be',
    body: z.object({ key, parts: z.array(repairOutcomeSchema).max(40) }),
    answer: visitSchema,
    problems: [...ofJob, 'not-allowed', 'unknown-part', 'key-in-use'],
  },
  handOver: {
    at: ['POST', '/api/jobs/{id}/hand-over'],
    right: 'signed-in',
    notes: 'nothing',
    of: 'job',
    summary: 'Hands the car over and closes the job',
    body: z.object({
      key,
      version: z.int().min(1),
      unproved: z.string().trim().min(3).max(500).optional(),
      parts: z.array(repairOutcomeSchema).max(40).optional(),
      /** The shop says when. */
      signature: signatureSchema.omit({ at: true }).optional(),
    }),
    answer: visitSchema,
    problems: [
      ...ofJob,
      'handed-over',
      'cancelled',
      'stale',
      'run-under-way',
      'not-proved',
      'not-allowed',
      'unknown-part',
      'key-in-use',
    ],
  },
  note: {
    at: ['POST', '/api/jobs/{id}/notes'],
    right: 'signed-in',
    notes: 'nothing',
    of: 'job',
    summary: 'Takes something worked out on the bench into the job',
    body: noteSchema,
    answer: z.null(),
    problems: [...ofJob, 'handed-over', 'cancelled'],
  },
} as const satisfies Record<string, Contract>;
