import { z } from 'zod';
import {
  createDocument,
  type ZodOpenApiOverride,
  type ZodOpenApiPathsObject,
  type ZodOpenApiResponseObject,
} from 'zod-openapi';
import { assessmentSchema, findingCodeSchema, findingSchema } from '../core/judgement/assessment/schema';
import {
  carWriteSchema,
  climateSchema,
  codeSchema,
  correctedSchema,
  fittedSchema,
  gaugeSchema,
  jobSchema,
  loadCaseSchema,
  observationSchema,
  placardSchema,
  repairsSchema,
  serviceSchema,
  tpmsSchema,
} from '../core/job/schema';
import { proofSchema } from '../core/job/schemas/proof';
import { visitNotesSchema } from '../core/job/notes';
import { pricesSchema } from '../core/job/schemas/replacement';
import { putOffSchema } from '../core/job/schemas/put-off';
import { shopSettingsSchema } from '../core/records/shop';
import { partSchema } from '../core/sensor/part/schema';
import { confirmationSchema, repairOutcomeSchema } from '../core/job/repair-outcome/schema';
import { instrumentSchema } from '../core/job/schemas/instrument';
import { sensorServiceSchema } from '../core/job/schemas/sensor-service';
import { byFileSchema } from '../core/names/by-file';
import { procedureSchema, stepSchema } from '../core/relearn/procedure/schema';
import { eventSchema, happeningSchema, seenOrDoneSchema } from '../core/relearn/run/schema';
import type { ProblemCode } from '../core/result';
import { contracts, problemSchema, statusOf, type Contract } from '.';
import { apiTokenSchema, toldAddressSchema } from './doors';
import { tableSchema } from './figures';
import { pairedDeviceSchema } from './people';
import { flagSchema, runViewSchema } from './relearn';
import { storedProcedureSchema } from './shop';
import { experienceSchema, moveSchema, visitSchema } from './visit';

/** The published description of the API, made from the contracts: OpenAPI 3.1. */

/** What any request can meet. */
const ofAny: readonly ProblemCode[] = ['server-error', 'busy', 'unreadable-record'];
const ofSignedIn: readonly ProblemCode[] = ['not-signed-in'];
const ofRights: readonly ProblemCode[] = ['not-allowed', 'second-factor-first'];
const ofSent: readonly ProblemCode[] = ['invalid-input', 'not-json', 'too-large', 'foreign-origin'];

/** What is said once and meant in many places. */
const named = {
  Job: jobSchema,
  Tpms: tpmsSchema,
  Placard: placardSchema,
  LoadCase: loadCaseSchema,
  FittedTires: fittedSchema,
  Repairs: repairsSchema,
  Service: serviceSchema,
  Climate: climateSchema,
  PutOff: putOffSchema,
  GaugeReading: gaugeSchema,
  Observation: observationSchema,
  Corrected: correctedSchema,
  VisitNotes: visitNotesSchema,
  Prices: pricesSchema,
  TroubleCode: codeSchema,
  CarWrite: carWriteSchema,
  SensorService: sensorServiceSchema,
  RepairOutcome: repairOutcomeSchema,
  Confirmation: confirmationSchema,
  ByFile: byFileSchema,
  Gauge: instrumentSchema,
  Assessment: assessmentSchema,
  Finding: findingSchema,
  FindingCode: findingCodeSchema,
  PairedDevice: pairedDeviceSchema,
  Procedure: procedureSchema,
  StoredProcedure: storedProcedureSchema,
  ProcedureFlag: flagSchema,
  Step: stepSchema,
  SeenOrDone: seenOrDoneSchema,
  Happening: happeningSchema,
  RunEvent: eventSchema,
  Run: runViewSchema,
  Visit: visitSchema,
  Move: moveSchema,
  Proof: proofSchema,
  ApiToken: apiTokenSchema,
  ToldAddress: toldAddressSchema,
  ShopSettings: shopSettingsSchema,
  Part: partSchema,
  Experience: experienceSchema,
  Table: tableSchema,
  Problem: problemSchema,
};

export function openApi() {
  const paths: ZodOpenApiPathsObject = {};
  for (const [name, contract] of Object.entries<Contract>(contracts)) {
    const [method, path] = contract.at;
    const isOpen = contract.right === 'anybody';
    const problems = [
      ...ofAny,
      ...(isOpen ? [] : ofSignedIn),
      ...(isOpen || contract.right === 'signed-in' ? [] : ofRights),
      ...(contract.body ? ofSent : []),
      ...(contract.query ? (['invalid-input'] as const) : []),
      ...contract.problems,
    ];
    paths[path] = {
      ...paths[path],
      [method.toLowerCase()]: {
        operationId: name,
        summary: contract.summary,
        ...(isOpen && { security: [] }),
        requestParams: {
          ...(path.includes('{id}') && { path: z.object({ id: z.uuid() }) }),
          ...(contract.query && { query: contract.query }),
        },
        ...(contract.body && {
          requestBody: { required: true, content: { 'application/json': { schema: contract.body } } },
        }),
        responses: {
          '200': { description: 'Done', content: { 'application/json': { schema: contract.answer } } },
          ...Object.fromEntries(
            [...byStatus(problems)].map(([status, codes]) => [String(status), refusedWith(status, codes)]),
          ),
        },
      },
    };
  }
  return createDocument(
    {
      openapi: '3.1.0',
      info: {
        title: 'Hacienda',
        version: '1.0.0',
        license: { name: 'Proprietary', identifier: 'LicenseRef-Proprietary' },
        description:
          'Jobs of a tire shop: what was seen, what follows, what was written to a car. Whatever changes something carries a key: sent twice, it is done once.',
      },
      servers: [{ url: '/', description: 'Where this description was read' }],
      security: [{ session: [] }],
      components: {
        securitySchemes: { session: { type: 'apiKey', in: 'cookie', name: 'hacienda_session' } },
        schemas: named,
      },
      paths,
    },
    { override: withoutTheObvious },
  );
}

/**
 * What its format says of a string, and its type of a whole number, is not said twice; and an answer may have more in it
 * one day.
 */
const withoutTheObvious: ZodOpenApiOverride = ({ jsonSchema, io }) => {
  if (io === 'output' && jsonSchema.additionalProperties === false) delete jsonSchema.additionalProperties;
  if (jsonSchema.format !== undefined) delete jsonSchema.pattern;
  if (jsonSchema.minimum === Number.MIN_SAFE_INTEGER) delete jsonSchema.minimum;
  if (jsonSchema.maximum === Number.MAX_SAFE_INTEGER) delete jsonSchema.maximum;
};

const refusals = new Map<string, ZodOpenApiResponseObject>();

/** An answer that is one of these problems: the same one wherever it is given. */
function refusedWith(status: number, codes: readonly ProblemCode[]): ZodOpenApiResponseObject {
  const description = codes.join(', ');
  const known = refusals.get(description) ?? {
    id: `Refused${status}.${refusals.size + 1}`,
    description,
    content: { 'application/json': { schema: problemSchema } },
  };
  refusals.set(description, known);
  return known;
}

function byStatus(problems: readonly ProblemCode[]): Map<number, ProblemCode[]> {
  const codes = new Map<number, ProblemCode[]>();
  for (const code of new Set(problems))
    codes.set(statusOf[code], [...(codes.get(statusOf[code]) ?? []), code]);
  return codes;
}
