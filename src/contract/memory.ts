import { benchTriggers, jobStates } from '../core/names/kinds';
import { z } from 'zod';
import { mostCharacters, type Found, type FoundVehicle, type ListedJob } from '../core/records/search';
import { followUpAbout, type DueFollowUp, type Suggested } from '../core/records/follow-up';
import { labelled, type LabelTarget } from '../core/names/label';
import type { Shared } from '../core/records/sensor-past';
import { replySchema } from '../core/job/schema';
import { walkingOrder } from '../core/names/wheel';
import { places, seasons, type SetWheel, type WheelSet } from '../core/records/wheel-set';
import { asked, key, ofJob, ofOpenJob, type Contract } from './contract';
import { visitSchema } from './visit';

/** What the shop remembers: finding again, over all years. */

const state = z.enum(jobStates);
const foundVehicleSchema = z.object({
  id: z.uuid(),
  label: z.string(),
  plate: z.string(),
  vin: z.string().nullable(),
  modelYear: z.int().nullable(),
  customer: z.string().nullable(),
  visits: z.int(),
  lastVisitAt: z.string().nullable(),
}) satisfies z.ZodType<FoundVehicle>;

const foundSchema: z.ZodType<Found> = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('label'), code: z.string(), of: z.enum(labelled), path: z.string() }),
  foundVehicleSchema.extend({ kind: z.literal('vehicle') }),
  z.object({
    kind: z.literal('sensor'),
    sensorId: z.string(),
    slip: z.boolean(),
    lastAt: z.string().nullable(),
    vehicles: z.array(foundVehicleSchema),
  }),
  z.object({
    kind: z.literal('job'),
    id: z.uuid(),
    number: z.int(),
    state,
    openedAt: z.string(),
    label: z.string(),
    plate: z.string(),
  }),
]);

const listedJobSchema = z.object({
  id: z.uuid(),
  number: z.int(),
  state,
  vehicleId: z.uuid(),
  label: z.string(),
  plate: z.string(),
  customer: z.string().nullable(),
  openedAt: z.string(),
  openedBy: z.string(),
  handedOverAt: z.string().nullable(),
  unproved: z.string().nullable(),
}) satisfies z.ZodType<ListedJob>;

/** A moment of a shop's life: databases know no year 0. */
export const moment = z.iso
  .datetime({ offset: true })
  .refine((text) => text >= '1950' && text < '2200', 'not a moment of our time');

/** How a list of jobs is narrowed. Days are those of the browser that asks. */
export const jobFilterSchema = z.object({
  from: moment.optional(),
  to: moment.optional(),
  by: asked(200).optional(),
  state: state.optional(),
  unproved: z.literal('1').optional(),
  /** The job after which the next page begins: when it was opened, and its ID. */
  beforeAt: moment.optional(),
  beforeId: z.uuid().optional(),
});
export type JobFilter = z.infer<typeof jobFilterSchema>;

const wheel = z.enum(walkingOrder);
/** A day of a shop's life. */
const day = z.iso
  .date()
  .refine((text) => text >= '1950-01-01' && text < '2200-01-01', 'not a day of our time');

const setWheelSchema = z.object({
  wheel: wheel.nullable(),
  sensorId: z.string().trim().min(1).max(64).nullable(),
  newOn: day.nullable(),
  treadMm: z.number().min(0).max(30).nullable(),
  dot: z.string().trim().max(40).nullable(),
  size: z.string().trim().max(40).nullable(),
}) satisfies z.ZodType<SetWheel>;

const setText = z.string().trim().min(1, 'give it a name').max(60);
const rack = z.string().trim().min(1).max(40).nullable();
const offPlace = z.enum(places).exclude(['car']);

const wheelSetSchema = z.object({
  id: z.uuid(),
  vehicleId: z.uuid(),
  label: z.string(),
  season: z.enum(seasons),
  place: z.enum(places),
  rack: z.string().nullable(),
  version: z.int(),
  wheels: z.array(setWheelSchema),
}) satisfies z.ZodType<WheelSet>;

const labelTargetSchema = z.discriminatedUnion('of', [
  z.object({ of: z.literal('key'), vehicleId: z.uuid() }),
  z.object({ of: z.literal('set'), vehicleId: z.uuid(), wheelSetId: z.uuid() }),
  z.object({ of: z.literal('wheel'), vehicleId: z.uuid(), wheelSetId: z.uuid(), wheel }),
  z.object({ of: z.literal('sensor'), sensorId: z.string().trim().min(1).max(64) }),
]) satisfies z.ZodType<LabelTarget>;

const sharedSchema: z.ZodType<Shared> = z.discriminatedUnion('why', [
  z.object({ why: z.literal('set-moved'), companions: z.array(z.string()) }),
  z.object({ why: z.literal('sensor-moved'), from: z.string(), to: z.string() }),
  z.object({ why: z.literal('clone'), at: z.string() }),
  z.object({ why: z.literal('slip'), holder: z.string(), ownId: z.string() }),
  z.object({ why: z.literal('held-only'), holder: z.string() }),
  z.object({ why: z.literal('two-send-it') }),
]);

const suggestedSchema = z.object({
  about: z.enum(followUpAbout),
  wheel: wheel.nullable(),
  note: z.string(),
  dueOn: day,
}) satisfies z.ZodType<Suggested>;

const dueFollowUpSchema = suggestedSchema.extend({
  key,
  vehicleId: z.uuid(),
  jobId: z.uuid().nullable(),
  number: z.int().nullable(),
  by: z.string(),
  ended: z
    .object({ at: z.string(), by: z.string(), outcome: z.enum(['done', 'dropped']), word: z.string() })
    .nullable(),
  label: z.string(),
  plate: z.string(),
  customer: z.string().nullable(),
  phone: z.string().nullable(),
}) satisfies z.ZodType<DueFollowUp>;

export const memoryContracts = {
  find: {
    at: ['GET', '/api/find'],
    right: 'signed-in',
    notes: { what: 'find' },
    summary: 'Whatever a plate, a VIN, a name, a sensor ID, a part of one or a job number may mean',
    query: z.object({ q: asked(mostCharacters) }),
    answer: z.array(foundSchema),
    problems: [],
  },
  jobs: {
    at: ['GET', '/api/jobs'],
    right: 'signed-in',
    notes: { what: 'jobs' },
    summary: 'Jobs of all years, the newest first, narrowed by day, person, state or what was not proved',
    query: jobFilterSchema,
    answer: z.object({ jobs: z.array(listedJobSchema), more: z.boolean() }),
    problems: [],
  },
  metElsewhere: {
    at: ['GET', '/api/jobs/{id}/met-elsewhere'],
    right: 'signed-in',
    notes: { what: 'job', of: 'job' },
    of: 'job',
    summary: 'Sensor IDs of a job that other vehicles had or have, and why',
    answer: z.array(z.object({ sensorId: z.string(), vehicle: foundVehicleSchema, why: sharedSchema })),
    problems: ofJob,
  },
  saveSet: {
    at: ['POST', '/api/vehicles/{id}/sets'],
    right: 'signed-in',
    notes: 'nothing',
    of: 'vehicle',
    summary: 'Puts a wheel set of a vehicle on file, or changes it',
    body: z.object({
      id: z.uuid(),
      version: z.int().min(0),
      label: setText,
      season: z.enum(seasons),
      place: z.enum(places),
      rack,
      wheels: z.array(setWheelSchema).max(12),
    }),
    answer: z.array(wheelSetSchema),
    problems: ['unknown-vehicle', 'unknown-set', 'stale', 'name-taken', 'rack-taken'],
  },
  readOnBench: {
    at: ['POST', '/api/vehicles/{id}/bench'],
    right: 'record-readings',
    notes: 'nothing',
    of: 'vehicle',
    summary: 'Wakes one wheel of a set that lies on the bench, and tells what answered; nothing is stored',
    body: z.object({ wheel, trigger: z.enum(benchTriggers) }),
    answer: z.object({ replies: z.array(replySchema) }),
    problems: [
      'unknown-vehicle',
      'not-allowed',
      'no-tool',
      'device-unreachable',
      'device-refused',
      'device-silent',
      'device-unclear',
    ],
  },
  swapSets: {
    at: ['POST', '/api/jobs/{id}/swap-sets'],
    right: 'signed-in',
    notes: 'nothing',
    of: 'job',
    summary: 'Puts another wheel set on the car of a job, and the one that was on it where it goes',
    body: z.object({
      key,
      version: z.int().min(1),
      set: z.uuid(),
      off: z.object({ place: offPlace, rack }),
    }),
    answer: visitSchema,
    problems: [...ofOpenJob, 'stale', 'unknown-set', 'rack-taken'],
  },
  mergeVehicles: {
    at: ['POST', '/api/vehicles/{id}/merge'],
    right: 'manage-shop',
    notes: 'nothing',
    of: 'vehicle',
    summary: 'Puts two records of one car together',
    body: z.object({ key, gone: z.uuid() }),
    answer: z.null(),
    problems: ['not-allowed', 'unknown-vehicle', 'already-merged', 'already-open'],
  },
  undoMerge: {
    at: ['POST', '/api/merges/{id}/undo'],
    right: 'manage-shop',
    notes: 'nothing',
    of: 'vehicle',
    summary: 'Takes two records apart again',
    body: z.strictObject({}),
    answer: z.null(),
    problems: ['not-allowed', 'unknown-vehicle', 'already-merged'],
  },
  label: {
    at: ['POST', '/api/labels'],
    right: 'signed-in',
    notes: 'nothing',
    summary: 'The code of each thing’s label, made where there is none yet',
    body: z.object({ targets: z.array(labelTargetSchema).min(1).max(60) }),
    answer: z.array(z.string()),
    problems: ['unknown-vehicle', 'unknown-set', 'not-found'],
  },
  followLabel: {
    at: ['GET', '/api/labels'],
    right: 'signed-in',
    notes: { what: 'label' },
    summary: 'Where a label leads',
    query: z.object({ code: asked(80) }),
    answer: z.object({ code: z.string(), of: z.enum(labelled), path: z.string() }),
    problems: ['torn-label', 'unknown-label'],
  },
  followUps: {
    at: ['GET', '/api/follow-ups'],
    right: 'signed-in',
    notes: { what: 'follow-ups' },
    summary: 'What is to be looked at again, the longest due first',
    answer: z.array(dueFollowUpSchema),
    problems: [],
  },
  addFollowUp: {
    at: ['POST', '/api/follow-ups'],
    right: 'signed-in',
    notes: 'nothing',
    summary: 'Notes that something is to be looked at again',
    body: z.object({
      key,
      vehicle: z.uuid(),
      job: z.uuid().optional(),
      about: z.enum(followUpAbout),
      wheel: wheel.optional(),
      note: z.string().trim().max(500),
      dueOn: day,
    }),
    answer: z.null(),
    problems: ['unknown-vehicle', 'unknown-job'],
  },
  endFollowUp: {
    at: ['POST', '/api/follow-ups/{id}'],
    right: 'signed-in',
    notes: 'nothing',
    of: 'follow-up',
    summary: 'Says that a follow-up was done, or is dropped',
    body: z
      .object({ outcome: z.enum(['done', 'dropped']), word: z.string().trim().max(500) })
      .refine(({ outcome, word }) => outcome === 'done' || word.length > 0, {
        path: ['word'],
        message: 'say why it is dropped',
      }),
    answer: z.null(),
    problems: ['unknown-follow-up'],
  },
  suggestFollowUps: {
    at: ['GET', '/api/jobs/{id}/follow-ups'],
    right: 'signed-in',
    notes: { what: 'job', of: 'job' },
    of: 'job',
    summary: 'What a visit should be followed by, from what it found and left open',
    answer: z.array(suggestedSchema),
    problems: ofJob,
  },
} as const satisfies Record<string, Contract>;
