import { z } from 'zod';
import { failure, success, type Result } from '../result';
import { issuesOf } from '../result/issues';
import { byFileSchema } from '../names/by-file';
import { confirmationSchema } from './repair-outcome/schema';
import { instrumentSchema, calibrationStatuses } from './schemas/instrument';
import { runRecordSchema } from '../relearn/run/schema';
import { mostPutOff, putOffSchema } from './schemas/put-off';
import { replacementSchema } from './schemas/replacement';
import { sensorServiceSchema } from './schemas/sensor-service';
import { walkingOrder } from '../names/wheel';
import {
  drives,
  fillPolicies,
  lampStates,
  monitoringKinds,
  signs,
  triggers,
  workKinds,
} from '../names/kinds';
import { relearnMethods } from '../relearn/method';
import { visitNotesSchema } from './notes';

/** The open job file, `hacienda.job/1`: what was seen. Unknown keys are kept; a missing key means "not known". */

/** A visit has a fraction of this; more is no job of one car, and would hold up all others (judgement). */
export const mostIn = {
  observations: 5000,
  corrected: 5000,
  writes: 100,
  runs: 40,
  history: 400,
  replies: 32,
  entries: 32,
  list: 64,
};

const position = z.enum(walkingOrder);
/** A model year, as a plate or a paper has it. */
export const year = z.int().min(1885).max(2199);
const at = z.iso.datetime({ offset: true });
const kPa = z.number().min(0).max(2000);
const celsius = z.number().min(-90).max(200);
const id = z.string().min(1).max(64);

export const tpmsSchema = z.looseObject({
  kind: z.enum(monitoringKinds),
  positions: z.array(position).optional(),
  frequencyMHz: z.number().positive().optional(),
  family: z.string().min(1).optional(),
  idDigits: z.int().min(1).max(16).optional(),
  locates: z.boolean().optional(),
  wakeSpeedKmh: z.number().min(0).optional(),
  /** So many wheel sets it holds at once; one where not known. */
  holdsSets: z.int().min(1).max(8).optional(),
  /** It sees by itself that a wheel changed with the spare, and wants that acknowledged; else it is taught. */
  swapWithSpare: z.enum(['acknowledged', 'taught']).optional(),
  lowOnKPa: kPa.optional(),
  lowOffKPa: kPa.optional(),
  highOnKPa: kPa.optional(),
  regulation: z.enum(['US', 'UN']).optional(),
  /** Its receiver is fed by the small 12 V battery of an electric car. */
  electric: z.boolean().optional(),
});

const vehicleSchema = z.looseObject({
  label: z.string().optional(),
  vin: z.string().optional(),
  modelYear: year.optional(),
  odometerKm: z.number().min(0).optional(),
  plate: z.string().optional(),
  /** The name of the profile it follows. */
  profile: z.string().optional(),
  tpms: tpmsSchema,
});

const axle = z.enum(['front', 'rear', 'spare']);

export const placardSchema = z.array(
  z.looseObject({
    position: axle,
    size: z.string().optional(),
    coldKPa: kPa,
    /** Cold pressure of the placard's second column, for the loaded car. */
    fullLoadKPa: kPa.optional(),
    /** The maker's own figures, where others are aimed at for other tires. */
    makerKPa: kPa.optional(),
    makerFullLoadKPa: kPa.optional(),
  }),
);

/** Which column of the placard holds: how the car is loaded. */
export const loadCaseSchema = z.enum(['usual', 'full']);

/** What is on the car, as its sidewalls say. */
export const fittedSchema = z.array(
  z.looseObject({ position: axle, size: z.string().optional(), maxKPa: kPa.optional() }),
);

/** Work on a tire that ends what was read before it: a leak mended. */
export const repairsSchema = z.array(z.looseObject({ wheel: position, at })).max(mostIn.list);

const workKind = z.enum(workKinds);

export const serviceSchema = z.looseObject({
  kind: workKind,
  hoursAgo: z.number().min(0).optional(),
  /** What else was done lately. */
  also: z
    .array(z.looseObject({ kind: workKind, hoursAgo: z.number().min(0).optional() }))
    .max(5)
    .optional(),
});

export const climateSchema = z.looseObject({
  nowC: celsius.optional(),
  overnightLowC: celsius.optional(),
  lastFillC: celsius.optional(),
  altitudeM: z.number().min(-500).max(9000).optional(),
  fillPolicy: z.enum(fillPolicies).optional(),
});

export const replySchema = z.looseObject({
  id,
  kPa: kPa.nullish(),
  tempC: celsius.nullish(),
  frequencyMHz: z.number().positive().optional(),
  family: z.string().optional(),
  battery: z.enum(['ok', 'low']).optional(),
  accelG: z.number().optional(),
  rssiDbm: z.number().optional(),
});

const registryEntry = z.looseObject({ wheel: position, id: id.nullable() });

/** What one read of the car's trouble codes gave. An empty list is a fact too: there were none. */
export const codeSchema = z.looseObject({
  code: z.string().min(1).max(16),
  status: z.enum(['active', 'stored']),
});

/** Names one thing within a file. Ours are UUIDs; another program may name things as it likes. */
const fileKey = z.string().min(1).max(64);

/** What the device's clock said of a reading that came from the future; it was set right. */
const saidAt = at.optional();

const seen = <Kind extends string, Shape extends z.ZodRawShape>(kind: Kind, shape: Shape) =>
  z.looseObject({
    kind: z.literal(kind),
    at,
    saidAt,
    byFile: byFileSchema.optional(),
    key: fileKey.optional(),
    ...shape,
  });

/**
 * A reading as it was taken. Its correction, its uncertainty, whether it is trusted, and the tire's temperature where
 * it was estimated, are worked out by the register of gauges (`asJudged`); what another program says of them stands.
 */
export const gaugeSchema = seen('gauge', {
  wheel: position,
  kPa,
  tire: z.enum(['cold', 'warm']),
  /** As it was measured. */
  tireC: celsius.optional(),
  /** How a warm tire that nobody measured was driven, and how long it has stood. */
  driven: z
    .object({
      drive: z.enum(drives),
      minutes: z.number().min(0).max(10_000),
      stoodMinutes: z.number().min(0).max(10_000),
      outdoorC: celsius,
    })
    .optional(),
  /** The gauge on the shop's register it was read with. */
  gauge: z.string().max(64).optional(),
  trusted: z.boolean().optional(),
  /** How that gauge stood for this reading. */
  standing: z.enum(calibrationStatuses).optional(),
  /** Expanded uncertainty (k = 2) of `tireC`, K. */
  tireCUncertaintyK: z.number().min(0).optional(),
  /** Expanded uncertainty (k = 2) of `kPa`. */
  uncertaintyKPa: z.number().min(0).optional(),
  /** What the gauge itself showed, where `kPa` has its error taken out. */
  readKPa: kPa.optional(),
});

export const observationSchema = z.discriminatedUnion('kind', [
  seen('lamp', {
    state: z.enum(lampStates),
    bulbCheck: z.boolean().optional(),
    otherLamps: z.array(z.enum(['abs', 'stability'])).optional(),
  }),
  seen('visual', {
    wheel: position,
    sign: z.enum(signs),
  }),
  gaugeSchema,
  seen('activation', {
    wheel: position,
    trigger: z.enum(triggers),
    replies: z.array(replySchema).max(mostIn.replies),
  }),
  seen('registry', {
    entries: z.array(registryEntry).max(mostIn.entries),
    /** The codes the same reading gave; an empty list says there were none. */
    codes: z.array(codeSchema).max(mostIn.list).optional(),
    /** The codes were cleared with another tool before they were read. */
    cleared: z.boolean().optional(),
  }),
  seen('live', {
    wheel: position,
    kPa: kPa.nullable(),
    speedKmh: z.number().min(0).optional(),
    tempC: celsius.nullish(),
    /** What the car itself says of the sensor's battery. */
    battery: z.enum(['ok', 'low']).optional(),
  }),
  seen('display', { wheel: position, kPa: kPa.nullable() }),
  seen('dtc', {
    code: z.string().min(1).max(16),
    status: z.enum(['active', 'stored']),
    about: z
      .enum(['no-signal', 'low-battery', 'low-pressure', 'receiver', 'wheel-speed', 'baseline', 'other'])
      .optional(),
    wheel: position.optional(),
  }),
  seen('reception', { id, expected: z.int().min(0), received: z.int().min(0) }),
  seen('wheelspeed', { wheel: position, ratio: z.number().positive() }),
  seen('voltage', { volts: z.number().min(0).max(60), engine: z.enum(['on', 'off']) }),
  seen('relearn', {
    method: z.enum(relearnMethods),
    outcome: z.enum(['done', 'failed', 'waiting-for-drive']),
    failedAt: position.optional(),
    /** `hand`: somebody says so; no procedure was led through here. */
    source: z.string().max(40).optional(),
  }),
]);

/**
 * A write to the car, in three facts: what was asked, what the car answered, what it held when read
 * back. Only the read-back says whether it worked. Kept in the job file beside the observations.
 */
const writeFacts = {
  key: fileKey,
  askedAt: at,
  by: z.string().optional(),
  byFile: byFileSchema.optional(),
  answeredAt: at.optional(),
  /** `lost`: the car was asked and no answer came; it may have written or not. */
  answer: z.enum(['yes', 'no', 'lost']).optional(),
  reason: z.string().optional(),
  readBackAt: at.optional(),
};

/** What a sensor is asked to be, and is read back as. */
const programmedSchema = z.looseObject({
  id,
  family: z.string().max(64).nullish(),
  frequencyMHz: z.number().positive().nullish(),
});

export const lampThresholdsSchema = z.looseObject({
  lowOnKPa: z.number().min(0).max(1000),
  lowOffKPa: z.number().min(0).max(1000),
});

export const carWriteSchema = z.discriminatedUnion('kind', [
  z.looseObject({
    kind: z.literal('registry'),
    ...writeFacts,
    asked: z.array(registryEntry),
    before: z.array(registryEntry),
    /** The key of the relearn it was part of. */
    run: fileKey.optional(),
    readBack: z.array(registryEntry).optional(),
  }),
  z.looseObject({
    kind: z.literal('clear-codes'),
    ...writeFacts,
    before: z.array(codeSchema),
    readBack: z.array(codeSchema).optional(),
  }),
  /** The pressures at which the car's lamp comes on and goes out, for receivers that take them. */
  z.looseObject({
    kind: z.literal('thresholds'),
    ...writeFacts,
    asked: lampThresholdsSchema,
    readBack: lampThresholdsSchema.optional(),
  }),
  /** A universal sensor that was programmed. */
  z.looseObject({
    kind: z.literal('sensor'),
    ...writeFacts,
    mode: z.enum(['clone', 'new', 'typed']),
    /** The article used. */
    part: z.string().max(120).optional(),
    /** The wheel it is for. */
    wheel: position.optional(),
    asked: programmedSchema,
    /** Its `id` null: it was read, and sent none. */
    readBack: programmedSchema.extend({ id: id.nullable() }).optional(),
  }),
]);

export const takenBackSchema = z.looseObject({
  at,
  by: z.string().max(200),
  reason: z.string().max(500),
});

/** A reading that was put right or taken back: kept, with what became of it, and out of all judgement. */
export const correctedSchema = z.looseObject({
  replacedBy: fileKey.optional(),
  /** It was recorded by mistake, and nothing stands in its place. */
  takenBack: takenBackSchema.optional(),
  observation: observationSchema,
});

/** What a person may correct about a visit: everything but what was seen and what was written to the car. */
export const headerSchema = z.looseObject({
  format: z.literal('hacienda.job/1'),
  vehicle: vehicleSchema,
  placard: placardSchema.optional(),
  loadCase: loadCaseSchema.optional(),
  fitted: fittedSchema.optional(),
  repairs: repairsSchema.optional(),
  /** Moves that are not made on this visit, and why. */
  putOff: z.array(putOffSchema).max(mostPutOff).optional(),
  service: serviceSchema.optional(),
  climate: climateSchema.optional(),
  visit: visitNotesSchema.optional(),
  /** Gauge readings of the same wheels at earlier visits, oldest first. */
  history: z.array(gaugeSchema).max(mostIn.history).optional(),
  /** The gauges those readings were made with, each with its checks, so that the file can be judged by itself. */
  gauges: z.array(instrumentSchema).max(mostIn.list).optional(),
  sensors: z
    .array(z.looseObject({ id, wheel: position.optional(), ageYears: z.number().min(0).optional() }))
    .max(mostIn.list)
    .optional(),
  otherSets: z
    .array(z.looseObject({ label: z.string().optional(), ids: z.array(id).max(mostIn.list) }))
    .max(mostIn.list)
    .optional(),
});

export const jobSchema = headerSchema.extend({
  observations: z.array(observationSchema).max(mostIn.observations),
  corrected: z.array(correctedSchema).max(mostIn.corrected).optional(),
  carWrites: z.array(carWriteSchema).max(mostIn.writes).optional(),
  /** What was led through by a relearn procedure, step by step. */
  runs: z.array(runRecordSchema).max(mostIn.runs).optional(),
  /** How the sensors of wheels were serviced; of one wheel the last holds. */
  replacement: replacementSchema.optional(),
  sensorServices: z.array(sensorServiceSchema).max(mostIn.list).optional(),
  /** What the parts turned out to be, each time somebody said so; the last holds. */
  confirmations: z.array(confirmationSchema).optional(),
});

/** Problem: `invalid-job`, with an issue per fault and its path. */
export function parseJob(document: unknown): Result<z.infer<typeof jobSchema>> {
  const parsed = jobSchema.safeParse(document);
  if (parsed.success) return success(parsed.data);
  return failure('invalid-job', 'This is not a job file.', issuesOf(parsed.error));
}
