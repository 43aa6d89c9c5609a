import { z } from 'zod';
import { repairOutcomeSchema } from '../core/job/repair-outcome/schema';
import { checkPointSchema, instrumentKinds, instrumentSchema } from '../core/job/schemas/instrument';
import { monitoringKinds } from '../core/names/kinds';
import { placardSchema, tpmsSchema, year } from '../core/job/schema';
import { sensibleProcedureSchema } from '../core/relearn/procedure/problems';
import { procedureSchema } from '../core/relearn/procedure/schema';
import { shopSettingsSchema } from '../core/records/shop';
import { receiverSchema } from '../core/car/uds/receiver';
import type { SensorLives } from '../core/sensor/life/lifetimes';
import {
  deviceKinds,
  type DeviceState,
  type KnownVehicle,
  type ProfileSummary,
  type ShopFigures,
} from './views';
import { asked, key, type Contract } from './contract';
import { healthContract } from './health';
import { experienceSchema } from './visit';

/** The shop itself: its gauges, vehicles, devices, settings and figures. */

/** What a shop knows of a kind of vehicle: its monitoring, its usual placard, and how to talk to it. */
export const profileSchema = z.object({
  name: z.string().min(1).max(64),
  label: z.string().min(1).max(120),
  fromYear: year.nullable().default(null),
  toYear: year.nullable().default(null),
  tpms: tpmsSchema,
  placard: placardSchema.default([]),
  receiver: receiverSchema.nullable().default(null),
});
export type Profile = z.infer<typeof profileSchema>;

export const storedProcedureSchema = z.object({
  version: z.int(),
  at: z.string(),
  by: z.string(),
  procedure: procedureSchema,
});
export type StoredProcedure = z.infer<typeof storedProcedureSchema>;

const newGaugeSchema = z.object({
  key,
  name: z.string().trim().min(1).max(80),
  kind: z.enum(instrumentKinds),
  resolutionKPa: z.number().min(0.01).max(50),
});
export type NewGauge = z.infer<typeof newGaugeSchema>;

const newCheckSchema = z.object({
  key,
  reference: z.string().trim().min(1).max(120),
  referenceUncertaintyKPa: z.number().min(0).max(50),
  points: z.array(checkPointSchema).min(3).max(40),
});
export type NewCheck = z.infer<typeof newCheckSchema>;

const knownVehicleSchema = z.object({
  id: z.uuid(),
  vin: z.string().nullable(),
  plate: z.string().nullable(),
  label: z.string(),
  modelYear: z.int().nullable(),
  profile: z.string().nullable(),
  visits: z.int(),
  lastOdometerKm: z.number().nullable(),
  openJob: z.object({ id: z.uuid(), number: z.int() }).nullable(),
}) satisfies z.ZodType<KnownVehicle>;

const profileSummarySchema = z.object({
  name: z.string(),
  label: z.string(),
  fromYear: z.int().nullable(),
  toYear: z.int().nullable(),
  kind: z.enum(monitoringKinds),
}) satisfies z.ZodType<ProfileSummary>;

const pair = z.tuple([z.number(), z.number()]);
const sensorLivesSchema = z.object({
  sensors: z.int(),
  ended: z.int(),
  steps: z.array(
    z.object({
      at: z.number(),
      atRisk: z.int(),
      ended: z.int(),
      survival: z.number(),
      error: z.number(),
      low: z.number(),
      high: z.number(),
    }),
  ),
  fit: z
    .object({
      shape: z.number(),
      scale: z.number(),
      shapeInterval: pair,
      scaleInterval: pair,
      ended: z.int(),
    })
    .nullable(),
  groups: z.array(
    z.object({
      by: z.enum(['part', 'carrier']),
      name: z.string(),
      sensors: z.int(),
      ended: z.int(),
      alive: z.array(
        z.object({ at: z.number(), survival: z.number(), low: z.number(), high: z.number() }).nullable(),
      ),
    }),
  ),
}) satisfies z.ZodType<SensorLives>;

const figuresSchema = z.object({
  sensorLives: sensorLivesSchema,
  experience: experienceSchema,
  visits: z.array(
    z.object({
      jobId: z.uuid(),
      number: z.int(),
      label: z.string(),
      plate: z.string(),
      at: z.string(),
      by: z.string(),
      parts: z.array(repairOutcomeSchema),
    }),
  ),
}) satisfies z.ZodType<ShopFigures>;

const deviceStates: z.ZodType<DeviceState[]> = z.array(
  z.object({
    kind: z.enum(deviceKinds),
    address: z.string(),
    namedAtStart: z.boolean(),
    since: z.string().nullable(),
    lastHeardAt: z.string().nullable(),
    trouble: z.object({ at: z.string(), message: z.string() }).nullable(),
    by: z.string().nullable(),
  }),
);
const register = z.array(instrumentSchema);
export const shopContracts = {
  health: healthContract,
  jobSchema: {
    at: ['GET', '/api/schema/job'],
    right: 'anybody',
    notes: 'nothing',
    summary: 'The JSON Schema of a job file',
    answer: z.looseObject({}),
    problems: [],
  },
  assessmentSchema: {
    at: ['GET', '/api/schema/assessment'],
    right: 'anybody',
    notes: 'nothing',
    summary: 'The JSON Schema of an assessment',
    answer: z.looseObject({}),
    problems: [],
  },
  profileSchema: {
    at: ['GET', '/api/schema/profile'],
    right: 'anybody',
    notes: 'nothing',
    summary: 'The JSON Schema of a file of vehicle profiles',
    answer: z.looseObject({}),
    problems: [],
  },
  procedureSchema: {
    at: ['GET', '/api/schema/procedure'],
    right: 'anybody',
    notes: 'nothing',
    summary: 'The JSON Schema of a relearn procedure',
    answer: z.looseObject({}),
    problems: [],
  },
  vehicle: {
    at: ['GET', '/api/vehicles'],
    right: 'signed-in',
    notes: { what: 'vehicle by plate or VIN' },
    summary: 'The vehicle that was here before, or null',
    query: z.object({ vin: asked(40).optional(), plate: asked(40).optional() }),
    answer: z.object({ vehicle: knownVehicleSchema.nullable() }),
    problems: [],
  },
  profiles: {
    at: ['GET', '/api/profiles'],
    right: 'signed-in',
    notes: 'nothing',
    summary: 'The kinds of vehicle on file',
    answer: z.array(profileSummarySchema),
    problems: [],
  },
  saveProfiles: {
    at: ['POST', '/api/profiles'],
    right: 'manage-people',
    notes: 'nothing',
    summary: 'Adds kinds of vehicle, or brings them up to date by name',
    body: z.array(profileSchema).min(1).max(500),
    answer: z.int(),
    problems: ['not-allowed'],
  },
  procedures: {
    at: ['GET', '/api/procedures'],
    right: 'signed-in',
    notes: 'nothing',
    summary: 'The relearn procedures, the latest version of each',
    answer: z.array(storedProcedureSchema),
    problems: [],
  },
  saveProcedures: {
    at: ['POST', '/api/procedures'],
    right: 'manage-shop',
    notes: 'nothing',
    summary: 'Takes relearn procedures in by name, each as a new version where it changed',
    body: z
      .array(sensibleProcedureSchema(() => new Date()))
      .min(1)
      .max(200),
    answer: z.array(storedProcedureSchema),
    problems: ['not-allowed'],
  },
  gauges: {
    at: ['GET', '/api/gauges'],
    right: 'signed-in',
    notes: 'nothing',
    summary: "The shop's gauges with their checks",
    answer: register,
    problems: [],
  },
  addGauge: {
    at: ['POST', '/api/gauges'],
    right: 'record-readings',
    notes: 'nothing',
    summary: 'Puts a gauge on the register',
    body: newGaugeSchema,
    answer: register,
    problems: ['not-allowed', 'name-taken'],
  },
  retireGauge: {
    at: ['POST', '/api/gauges/{id}'],
    right: 'record-readings',
    notes: 'nothing',
    of: 'gauge',
    summary: 'Takes a gauge out of use or back into it',
    body: z.object({ retired: z.boolean() }),
    answer: register,
    problems: ['not-allowed', 'unknown-gauge', 'name-taken'],
  },
  recordCheck: {
    at: ['POST', '/api/gauges/{id}/checks'],
    right: 'record-readings',
    notes: 'nothing',
    of: 'gauge',
    summary: 'Records a check of a gauge against a reference',
    body: newCheckSchema,
    answer: instrumentSchema,
    problems: ['not-allowed', 'unknown-gauge', 'key-in-use', 'check-one-point'],
  },
  weather: {
    at: ['GET', '/api/weather'],
    right: 'signed-in',
    notes: 'nothing',
    summary: 'The outdoor temperature of the hours to come',
    answer: z.object({
      place: z.string(),
      altitudeM: z.number().optional(),
      hours: z.array(z.object({ at: z.string(), celsius: z.number() })),
    }),
    problems: ['no-weather', 'weather-unreachable', 'weather-unclear'],
  },
  devices: {
    at: ['GET', '/api/devices'],
    right: 'signed-in',
    notes: 'nothing',
    summary: 'The devices of the shop, and how they last answered',
    answer: deviceStates,
    problems: [],
  },
  tryDevice: {
    at: ['POST', '/api/devices'],
    right: 'signed-in',
    notes: 'nothing',
    slow: true,
    summary: 'Asks whether anything answers at the address of a device',
    body: z.object({ kind: z.enum(deviceKinds) }),
    answer: deviceStates,
    problems: [],
  },
  figures: {
    at: ['GET', '/api/figures'],
    right: 'signed-in',
    notes: 'nothing',
    summary: 'What the shop has seen',
    answer: figuresSchema,
    problems: [],
  },
  shop: {
    at: ['GET', '/api/shop'],
    right: 'signed-in',
    notes: 'nothing',
    summary: 'What holds for the whole shop',
    answer: shopSettingsSchema,
    problems: [],
  },
  setShop: {
    at: ['POST', '/api/shop'],
    right: 'manage-shop',
    notes: 'nothing',
    summary: 'Sets what holds for the whole shop',
    body: shopSettingsSchema,
    answer: shopSettingsSchema,
    problems: ['not-allowed', 'second-factor-first'],
  },
} as const satisfies Record<string, Contract>;
