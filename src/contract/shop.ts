import { z } from 'zod';
import { repairOutcomeSchema } from '../core/repair-outcome/schema';
import { checkPointSchema, instrumentKinds, instrumentSchema } from '../core/gauge/schema';
import { placardSchema, tpmsSchema, year } from '../core/job/schema';
import { sensibleProcedureSchema } from '../core/relearn/procedure/problems';
import { procedureSchema } from '../core/relearn/procedure/schema';
import { shopSettingsSchema } from '../core/shop';
import { receiverSchema } from '../core/uds/receiver';
import type { SensorLives } from '../core/sensor-life/lifetimes';
import { unitChoiceSchema } from '../core/units/schema';
import { roles, secondFactors, type PairedDevice, type SessionSummary } from '../core/visit/person';
import type { DeviceState, KnownVehicle, ProfileSummary, ShopFigures } from '../core/visit/view';
import { asked, key, type Contract } from './contract';
import { healthContract } from './health';
import { experienceSchema } from './visit';

/** The shop itself: its gauges, vehicles, people, settings and figures. */

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

const storedProcedureSchema = z.object({
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
  kind: z.enum(['direct', 'indirect', 'none']),
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

const credentialsSchema = z.object({
  name: z.string().trim().min(1).max(80),
  passphrase: z.string().min(1).max(128),
});

const role = z.enum(roles);
/** `awaitsCode`: only the passphrase was shown, the code of the second factor is to come. */
const signedIn = z.object({ name: z.string(), role, awaitsCode: z.boolean() });
/** Of six digits, or one that was written down. */
const code = z.string().trim().min(6).max(40);
const deviceStates: z.ZodType<DeviceState[]> = z.array(
  z.object({
    kind: z.enum(['tool', 'lead', 'weather']),
    address: z.string(),
    namedAtStart: z.boolean(),
    since: z.string().nullable(),
    lastHeardAt: z.string().nullable(),
    trouble: z.object({ at: z.string(), message: z.string() }).nullable(),
    by: z.string().nullable(),
  }),
);
const pairedDeviceSchema = z.object({
  id: z.uuid(),
  name: z.string(),
  pairedAt: z.string(),
  pairedBy: z.string(),
  lastSeenAt: z.string().nullable(),
}) satisfies z.ZodType<PairedDevice>;
const sessionSchema = z.object({
  id: z.uuid(),
  startedAt: z.string(),
  expiresAt: z.string(),
  agent: z.string(),
  here: z.boolean(),
}) satisfies z.ZodType<SessionSummary>;
const register = z.array(instrumentSchema);
const done = z.object({ ok: z.literal(true) });

export const shopContracts = {
  health: healthContract,
  jobSchema: {
    summary: 'The JSON Schema of a job file',
    answer: z.looseObject({}),
    problems: ['unknown-schema'],
    open: true,
  },
  assessmentSchema: {
    summary: 'The JSON Schema of an assessment',
    answer: z.looseObject({}),
    problems: ['unknown-schema'],
    open: true,
  },
  profileSchema: {
    summary: 'The JSON Schema of a file of vehicle profiles',
    answer: z.looseObject({}),
    problems: ['unknown-schema'],
    open: true,
  },
  procedureSchema: {
    summary: 'The JSON Schema of a relearn procedure',
    answer: z.looseObject({}),
    problems: ['unknown-schema'],
    open: true,
  },
  vehicle: {
    summary: 'The vehicle that was here before, or null',
    query: z.object({ vin: asked(40).optional(), plate: asked(40).optional() }),
    answer: z.object({ vehicle: knownVehicleSchema.nullable() }),
    problems: [],
  },
  profiles: { summary: 'The kinds of vehicle on file', answer: z.array(profileSummarySchema), problems: [] },
  saveProfiles: {
    summary: 'Adds kinds of vehicle, or brings them up to date by name',
    body: z.array(profileSchema).min(1).max(500),
    answer: z.int(),
    problems: ['not-allowed'],
  },
  procedures: {
    summary: 'The relearn procedures, the latest version of each',
    answer: z.array(storedProcedureSchema),
    problems: [],
  },
  saveProcedures: {
    summary: 'Takes relearn procedures in by name, each as a new version where it changed',
    body: z.array(sensibleProcedureSchema).min(1).max(200),
    answer: z.array(storedProcedureSchema),
    problems: ['not-allowed'],
  },
  gauges: { summary: "The shop's gauges with their checks", answer: register, problems: [] },
  addGauge: {
    summary: 'Puts a gauge on the register',
    body: newGaugeSchema,
    answer: register,
    problems: ['not-allowed', 'name-taken'],
  },
  retireGauge: {
    summary: 'Takes a gauge out of use or back into it',
    body: z.object({ retired: z.boolean() }),
    answer: register,
    problems: ['not-allowed', 'unknown-gauge', 'name-taken'],
  },
  recordCheck: {
    summary: 'Records a check of a gauge against a reference',
    body: newCheckSchema,
    answer: instrumentSchema,
    problems: ['not-allowed', 'unknown-gauge', 'key-in-use', 'check-one-point'],
  },
  weather: {
    summary: 'The outdoor temperature of the hours to come',
    answer: z.object({
      place: z.string(),
      altitudeM: z.number().optional(),
      hours: z.array(z.object({ at: z.string(), celsius: z.number() })),
    }),
    problems: ['no-weather', 'weather-unreachable', 'weather-unclear'],
  },
  devices: {
    summary: 'The devices of the shop, and how they last answered',
    answer: deviceStates,
    problems: [],
  },
  tryDevice: {
    summary: 'Asks whether anything answers at the address of a device',
    body: z.object({ kind: z.enum(['tool', 'lead', 'weather']) }),
    answer: deviceStates,
    problems: [],
  },
  figures: { summary: 'What the shop has seen', answer: figuresSchema, problems: [] },
  shop: { summary: 'What holds for the whole shop', answer: shopSettingsSchema, problems: [] },
  setShop: {
    summary: 'Sets what holds for the whole shop',
    body: shopSettingsSchema,
    answer: shopSettingsSchema,
    problems: ['not-allowed', 'second-factor-first'],
  },
  people: {
    summary: 'Who works here',
    answer: z.array(
      z.object({
        id: z.uuid(),
        name: z.string(),
        role,
        units: unitChoiceSchema,
        ownUnits: z.boolean(),
        secondFactor: z.enum(secondFactors),
        active: z.boolean(),
      }),
    ),
    problems: ['not-allowed'],
  },
  addPerson: {
    summary: 'Makes an account',
    body: z.object({ name: z.string().trim().min(1).max(80), role, passphrase: z.string().max(128) }),
    answer: z.object({ id: z.uuid() }),
    problems: ['not-allowed', 'name-taken', 'passphrase-short', 'passphrase-common'],
  },
  setActive: {
    summary: 'Lets somebody in, or keeps them out',
    body: z.object({ active: z.boolean() }),
    answer: z.null(),
    problems: ['not-allowed', 'unknown-person', 'not-yourself', 'last-manager'],
  },
  me: {
    summary: "One's own units and theme; null units: as the shop",
    body: z.object({
      units: unitChoiceSchema.nullable().optional(),
      theme: z.enum(['light', 'dark', 'system']).optional(),
    }),
    answer: done,
    problems: [],
  },
  signInWithPin: {
    summary: 'Starts a session with a PIN, on a device that was paired',
    body: z.object({ name: z.string().trim().min(1).max(80), pin: z.string().min(1).max(12) }),
    answer: signedIn,
    problems: ['not-paired', 'wrong-name-or-passphrase', 'too-many-attempts'],
    open: true,
  },
  setSecret: {
    summary: "Changes one's own passphrase, or sets a PIN; all other sessions of one's own end",
    body: z.object({
      passphrase: z.string().min(1).max(128),
      next: z.string().max(128).optional(),
      pin: z.string().max(12).optional(),
    }),
    answer: z.null(),
    problems: [
      'wrong-name-or-passphrase',
      'passphrase-short',
      'passphrase-common',
      'pin-unfit',
      'too-many-attempts',
      'unknown-person',
    ],
  },
  newSecondFactor: {
    summary: 'A secret for an app that makes codes: to be confirmed with a first code',
    body: z.strictObject({ passphrase: z.string().min(1).max(128) }),
    answer: z.object({ secret: z.string(), uri: z.string() }),
    problems: ['wrong-name-or-passphrase', 'too-many-attempts', 'unknown-person'],
  },
  setSecondFactor: {
    summary: "Asks for a code at one's own sign-ins from now on; gives the codes to write down",
    body: z.strictObject({
      passphrase: z.string().min(1).max(128),
      /** At least 128 bits. */
      secret: z.string().regex(/^[A-Z2-7]{26,64}$/),
      code,
    }),
    answer: z.object({ recovery: z.array(z.string()) }),
    problems: ['wrong-name-or-passphrase', 'too-many-attempts', 'unknown-person', 'wrong-code'],
  },
  dropSecondFactor: {
    summary: "Asks for no code at one's own sign-ins any more",
    body: z.strictObject({ passphrase: z.string().min(1).max(128) }),
    answer: z.null(),
    problems: ['wrong-name-or-passphrase', 'too-many-attempts', 'unknown-person'],
  },
  takeSecondFactor: {
    summary: "Takes somebody's second factor away, whose phone is lost; their sessions end",
    body: z.strictObject({}),
    answer: z.null(),
    problems: ['not-allowed', 'second-factor-first', 'unknown-person', 'not-yourself'],
  },
  signInWithCode: {
    summary: 'Ends a sign-in that waits for the code of a second factor',
    body: z.object({ code }),
    answer: signedIn,
    problems: ['wrong-code', 'code-too-late', 'too-many-attempts'],
    open: true,
  },
  sessions: { summary: 'Where one is signed in', answer: z.array(sessionSchema), problems: [] },
  endSession: {
    summary: "Ends one of one's own sessions",
    body: z.object({ session: z.uuid() }),
    answer: z.null(),
    problems: ['unknown-session'],
  },
  resetPassphrase: {
    summary: 'Gives somebody another passphrase; their PIN and all their sessions end',
    body: z.object({ passphrase: z.string().max(128) }),
    answer: z.null(),
    problems: ['not-allowed', 'unknown-person', 'passphrase-short', 'passphrase-common'],
  },
  pairedDevices: {
    summary: 'Devices on which a PIN is enough to sign in',
    answer: z.array(pairedDeviceSchema),
    problems: ['not-allowed'],
  },
  pairDevice: {
    summary: 'Pairs the device that asks; its cookie is all there is to it',
    body: z.object({ name: z.string().trim().min(1).max(80) }),
    answer: z.array(pairedDeviceSchema),
    problems: ['not-allowed'],
  },
  unpairDevice: {
    summary: 'Takes a device out; whoever was signed in on it with a PIN is out too',
    body: z.object({ device: z.uuid() }),
    answer: z.array(pairedDeviceSchema),
    problems: ['not-allowed', 'unknown-device'],
  },
  signIn: {
    summary: 'Starts a session; its cookie is all there is to it',
    body: credentialsSchema,
    answer: signedIn,
    problems: ['wrong-name-or-passphrase', 'too-many-attempts'],
    open: true,
  },
} as const satisfies Record<string, Contract>;
