import { z } from 'zod';
import { mostCharacters, type Found, type FoundVehicle, type ListedJob } from '../core/search';
import { jobStates } from '../core/visit/view';
import { asked, type Contract } from './contract';

/** What the shop remembers: finding again, over all years. */

const state = z.enum(jobStates);
export const foundVehicleSchema = z.object({
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

/** How a list of jobs is narrowed. Days are those of the browser that asks. */
export const jobFilterSchema = z.object({
  from: z.iso.datetime({ offset: true }).optional(),
  to: z.iso.datetime({ offset: true }).optional(),
  by: asked(200).optional(),
  state: state.optional(),
  unproved: z.literal('1').optional(),
  /** The job after which the next page begins: when it was opened, and its ID. */
  beforeAt: z.iso.datetime({ offset: true }).optional(),
  beforeId: z.uuid().optional(),
});
export type JobFilter = z.infer<typeof jobFilterSchema>;

export const memoryContracts = {
  find: {
    summary: 'Whatever a plate, a VIN, a name, a sensor ID, a part of one or a job number may mean',
    query: z.object({ q: asked(mostCharacters) }),
    answer: z.array(foundSchema),
    problems: [],
  },
  jobs: {
    summary: 'Jobs of all years, the newest first, narrowed by day, person, state or what was not proved',
    query: jobFilterSchema,
    answer: z.object({ jobs: z.array(listedJobSchema), more: z.boolean() }),
    problems: [],
  },
} as const satisfies Record<string, Contract>;
