import { readFileSync } from 'node:fs';
import { createConfig, lintFromString } from '@redocly/openapi-core';
import { Validator } from '@seriousme/openapi-schema-validator';
import Ajv2020 from 'ajv/dist/2020';
import addFormats from 'ajv-formats';
import openapiTS, { astToString } from 'openapi-typescript';
import ts from 'typescript';
import { v7 as newKey } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { z } from 'zod';
import { fullJob } from '../../bench/full-job';
import { contracts, problemSchema, statusOf, type Route, type RouteName } from '../../src/contract';
import { routes } from '../../src/contract/routes';
import type { Job } from '../../src/core/job';
import type { Table } from '../../src/core/records/table';
import { rights } from '../../src/core/visit/person';
import type { VisitView, YardLine } from '../../src/contract/views';
import { Client, openShop, type Shop } from '../support/shop';

/** OpenAPI 3.1 as @seriousme/openapi-schema-validator reads it, and JSON Schema 2020-12 as ajv does. */
const documentSchema = z.looseObject({
  paths: z.record(
    z.string(),
    z.record(
      z.string(),
      z.looseObject({
        operationId: z.string(),
        responses: z.record(z.string(), z.looseObject({ $ref: z.string().optional() })),
      }),
    ),
  ),
});

let shop: Shop;
let ines: Client;
let boss: Client;
let text: string;
let document: z.infer<typeof documentSchema>;
const ajv = addFormats(new Ajv2020({ strict: false, allErrors: true }));

beforeAll(async () => {
  shop = await openShop();
  ines = await Client.signIn(shop.address);
  boss = await Client.signIn(shop.address, 'manager');
  text = await (await fetch(`${shop.address}/api/openapi.json`)).text();
  document = documentSchema.parse(JSON.parse(text));
  ajv.addSchema(sayingAll(document), 'api');
});
afterAll(() => shop?.close());

/** The same, where whatever is not published is a fault: programs may meet more one day, this one must not. */
function sayingAll<Part>(part: Part): Part {
  if (typeof part !== 'object' || part === null) return part;
  if (Array.isArray(part)) return part.map(sayingAll) as Part;
  const inside = Object.fromEntries(Object.entries(part).map(([key, value]) => [key, sayingAll(value)]));
  const isClosed = inside.type === 'object' && 'properties' in inside && !('additionalProperties' in inside);
  return (isClosed ? { ...inside, additionalProperties: false } : inside) as Part;
}

const pointer = (text: string) => encodeURIComponent(text.replaceAll('~', '~0').replaceAll('/', '~1'));

/** Asks by the name of a use case and holds the answer against what is published for its status. */
async function asked(
  name: RouteName,
  { id = '', body, query = '', as = ines }: { id?: string; body?: unknown; query?: string; as?: Client } = {},
): Promise<{ status: number; answer: unknown }> {
  const [method, path] = contracts[name].at;
  const address = path.replace('{id}', id) + query;
  const response =
    body === undefined && method === 'GET' ? await as.fetch(address) : await as.send(method, address, body);
  const answer: unknown = await response.json();
  const published = document.paths[path]?.[method.toLowerCase()]?.responses[String(response.status)];
  const place =
    published?.$ref ?? `#/paths/${pointer(path)}/${method.toLowerCase()}/responses/${response.status}`;
  const at = `api${place}/content/application~1json/schema`;
  expect(
    published,
    `${name} answers ${response.status}: ${JSON.stringify(answer).slice(0, 300)}`,
  ).toBeDefined();
  const valid = ajv.validate({ $ref: at }, answer);
  expect(valid ? [] : ajv.errors?.slice(0, 3), `${name} ${response.status}`).toEqual([]);
  return { status: response.status, answer };
}

const jobOf = async (plate: string) =>
  (await ines.get<YardLine[]>('/api/yard')).find((line) => line.plate === plate)?.id ?? '';

const procedures = JSON.parse(
  readFileSync(new URL('../../demo/procedures.json', import.meta.url), 'utf8'),
) as unknown;

describe('the published description of the API', () => {
  it('says once what it means in many places: less than 200 kB', () => {
    expect(Buffer.byteLength(text)).toBeLessThan(200_000);
  });

  it('has nothing that @redocly/openapi-core warns of, by its recommended rules', async () => {
    const config = await createConfig({ extends: ['recommended'] });
    const found = await lintFromString({ source: text, absoluteRef: 'openapi.json', config });
    expect(found.map(({ ruleId, message }) => `${ruleId}: ${message}`)).toEqual([]);
  });

  it('becomes types by openapi-typescript that TypeScript takes', async () => {
    const types = astToString(await openapiTS(text));
    const { diagnostics } = ts.transpileModule(types, { reportDiagnostics: true });
    expect(diagnostics).toEqual([]);
    expect(types).toMatch(/^ {8}Observation: /m);
    for (const name of Object.keys(contracts)) expect(types).toContain(`operations["${name}"]`);
  });

  it('is OpenAPI 3.1, and names every use case once', async () => {
    const checked = await new Validator().validate(structuredClone(document));
    expect(checked.errors).toBeUndefined();
    expect(checked.valid).toBe(true);
    const names = Object.values(document.paths).flatMap((methods) =>
      Object.values(methods).map(({ operationId }) => operationId),
    );
    expect(names.sort()).toEqual(Object.keys(contracts).sort());
  });

  it('is what the endpoints answer, one after the other through a visit', async () => {
    const id = await jobOf('KUR 417');
    const visit = async () => (await asked('job', { id })).answer as VisitView;
    const read = { kind: 'gauge', at: new Date().toISOString(), wheel: 'LF', kPa: 231, tire: 'cold' };
    for (const [name, status, more] of [
      ['health', 200, {}],
      ['jobSchema', 200, {}],
      ['assessmentSchema', 200, {}],
      ['yard', 200, {}],
      ['weather', 200, {}],
      ['figures', 200, {}],
      ['profiles', 200, {}],
      ['procedureSchema', 200, {}],
      ['procedures', 200, {}],
      ['saveProcedures', 200, { as: boss, body: procedures }],
      ['saveProcedures', 403, { body: procedures }],
      ['gauges', 200, {}],
      ['vehicle', 200, { query: '?plate=KUR417' }],
      ['vehicle', 200, {}],
      ['people', 200, { as: boss }],
      ['people', 403, {}],
      ['practiceCar', 200, { id }],
      ['record', 200, { id, body: { key: newKey(), observation: read } }],
      ['wake', 200, { id, body: { key: newKey(), wheel: 'LF', trigger: 'pulsed' } }],
      ['readCar', 200, { id, body: { key: newKey() } }],
      ['verdict', 200, { id }],
      ['note', 200, { id, body: { key: newKey(), text: 'a note', link: '/bench' } }],
      ['practise', 200, { id, body: { do: 'air', wheel: 'LF', kPa: 230 } }],
      ['practise', 200, { id, body: { do: 'night', celsius: 3 } }],
      ['practise', 200, { id, body: { do: 'drive', key: newKey() } }],
      ['clearCodes', 200, { id, body: { key: newKey() } }],
      ['jobFile', 200, { id }],
      ['me', 200, { body: { theme: 'system' } }],
      ['addGauge', 200, { body: { key: newKey(), name: 'Contract', kind: 'dial', resolutionKPa: 5 } }],
      ['confirm', 200, { id, body: { key: newKey(), parts: [{ part: 'receiver', was: 'in-order' }] } }],
    ] as const)
      expect((await asked(name, more)).status, name).toBe(status);
    const entries = ['LF', 'RF', 'RR', 'LR'].map((wheel) => ({ wheel, id: null }));
    expect((await asked('writeIds', { id, body: { key: newKey(), entries } })).status).toBe(200);
    const { version } = await visit();
    expect(
      (await asked('editJob', { id, body: { key: newKey(), version, changes: { complaint: 'a lamp' } } }))
        .status,
    ).toBe(200);
    expect((await asked('editJob', { id, body: { key: newKey(), version, changes: {} } })).status).toBe(409);
    expect((await asked('handOver', { id, body: { key: newKey(), version: version + 1 } })).status).toBe(409);
    const unproved = { key: newKey(), version: version + 1, unproved: 'a test' };
    expect((await asked('handOver', { id, body: unproved })).status).toBe(200);
    expect((await asked('record', { id, body: { key: newKey(), observation: read } })).status).toBe(409);
    expect((await asked('bookIn', { body: { key: newKey(), vehicle: { label: 'Brisa' } } })).status).toBe(
      200,
    );
  });

  it('is what they answer while a car is taught', async () => {
    const id = await jobOf('KUR 982');
    const run = newKey();
    const told = (happening: object) => ({ told: [{ key: newKey(), agoS: 0, happening }] });
    const confirm = (what: string) => told({ event: 'confirm', what });
    for (const [name, status, more] of [
      ['startRun', 404, { id, body: { key: newKey(), procedure: 'nothing' } }],
      ['startRun', 200, { id, body: { key: run, procedure: 'vela-write' } }],
      ['startRun', 409, { id, body: { key: newKey(), procedure: 'vela-write' } }],
      ['run', 200, { id: run }],
      ['tellRun', 200, { id: run, body: confirm('supply-steady') }],
      ['tellRun', 200, { id: run, body: confirm('engine-off') }],
      ['hearCar', 200, { id: run }],
      ['readInRun', 200, { id: run, body: { key: newKey(), what: 'speed' } }],
      ['readInRun', 409, { id: run, body: { key: newKey(), what: 'registry' } }],
      ['writeInRun', 409, { id: run, body: { key: newKey() } }],
      ...['LF', 'RF', 'RR', 'LR'].map(
        (wheel) =>
          ['wakeInRun', 200, { id: run, body: { key: newKey(), wheel, trigger: 'pulsed' } }] as const,
      ),
      ['writeInRun', 200, { id: run, body: { key: newKey() } }],
      ['tellRun', 200, { id: run, body: told({ event: 'stop' }) }],
      ['wakeInRun', 409, { id: run, body: { key: newKey(), wheel: 'LF', trigger: 'pulsed' } }],
    ] as const)
      expect((await asked(name, more)).status, name).toBe(status);
  });

  it('is what they answer to what is not there, not allowed, and not right', async () => {
    const none = newKey();
    // A manager may do whatever is there to be done.
    for (const name of Object.keys(contracts) as RouteName[]) {
      const [method, path] = contracts[name].at;
      if (path.includes('{id}')) {
        const { status, answer } = await asked(name, {
          id: 'nothing',
          as: boss,
          ...(method !== 'GET' && { body: {} }),
        });
        expect(status, name).toBe(404);
        expect(problemSchema.parse(answer).error.code, name).toMatch(
          /^unknown-(job|gauge|person|run|vehicle|follow-up|list|customer|token|address|flag)$/,
        );
      }
      if (method !== 'GET' && name !== 'assess' && name !== 'importJob' && name !== 'signIn') {
        const { status } = await asked(name, { id: none, body: { nothing: 'right' }, as: boss });
        // A body of which everything is optional is right, and does nothing.
        expect(name === 'me' ? [200] : [400], name).toContain(status);
      }
    }
    const stranger = await fetch(`${shop.address}/api/yard`);
    expect(stranger.status).toBe(401);
    expect(problemSchema.parse(await stranger.json()).error.code).toBe('not-signed-in');
  });

  it('gives every problem a status that says whose fault it is', () => {
    for (const [code, status] of Object.entries(statusOf)) {
      expect(status, code).toBeGreaterThanOrEqual(400);
      if (/^(car-|device-|lead-|weather-)/.test(code)) expect(status, code).toBe(502);
      // What the shop does not have is nobody's fault.
      if (/^no-(lead|practice|programmer|tool|weather)$/.test(code)) expect(status, code).toBe(409);
    }
  });
});

describe('every route', () => {
  const each = Object.entries<Route>(routes);
  const path = ({ at }: Route) => at[1].replace(/\{\w+\}/, newKey());
  const send = (who: Client, route: Route) => {
    const [method] = route.at;
    return method === 'GET' ? who.fetch(path(route)) : who.send(method, path(route), {});
  };

  it('is open to nobody without a session, but for those that say so', async () => {
    const nobody = Client.with(shop.address, 'hacienda_session=none');
    for (const [name, route] of each)
      if (route.right !== 'anybody') expect((await send(nobody, route)).status, name).toBe(401);
  });

  it('that asks for a right is refused to whoever has none', async () => {
    const pilar = await Client.signIn(shop.address, 'adviser');
    const roles = [
      ['adviser', pilar],
      ['technician', ines],
    ] as const;
    for (const [name, route] of each) {
      if (route.right === 'anybody' || route.right === 'signed-in') continue;
      for (const [role, who] of roles)
        if (!(rights[route.right] as readonly string[]).includes(role))
          expect((await send(who, route)).status, `${role} ${name}`).toBe(403);
    }
  });

  it('that shows somebody’s records is noted, whatever stands at the end of its address', async () => {
    const id = await jobOf('KUR 417');
    const { vehicleId } = await ines.get<VisitView>(`/api/jobs/${id}`);
    const seen = async () =>
      (await boss.get<Table>('/api/traces?by=Ines')).rows.map(([, , did]) => String(did));
    for (const address of [
      `/api/jobs/${id}/history`,
      `/api/jobs/${id}/sheet.pdf/`,
      `/api/jobs/${id}/file/`,
      `/api/vehicles/${vehicleId}/file`,
      '/api/jobs?state=open',
      '/api/vehicles?plate=KUR417',
      '/api/tables/gauges.csv/',
    ])
      expect((await ines.fetch(address)).status, address).toBe(200);
    const whats = [
      'job',
      'sheet',
      'job file',
      'vehicle file',
      'jobs',
      'vehicle by plate or VIN',
      'list as CSV',
    ];
    for (const what of whats) await expect.poll(seen, { timeout: 10_000 }).toContain(`saw: ${what}`);
  });
});

describe('a job file of another program', () => {
  it('is taken in whatever its keys are, once, under keys of ours', async () => {
    const job = fullJob(true);
    const theirs: Job = {
      ...job,
      observations: job.observations.map((seen, at) => ({ ...seen, key: `r${at}` })),
      carWrites: [
        {
          kind: 'registry',
          key: 'w1',
          askedAt: job.observations.at(-1)?.at ?? '',
          asked: [],
          before: [],
        },
      ],
      visit: { key: 'their visit 7', complaint: 'a lamp' },
    };
    const first = await ines.post<{ id: string; already: boolean }>('/api/jobs/import', theirs);
    const again = await ines.post<{ id: string; already: boolean }>('/api/jobs/import', theirs);
    expect([first.already, again.already, again.id]).toEqual([false, true, first.id]);
    const { job: stored } = await ines.get<VisitView>(`/api/jobs/${first.id}`);
    expect(stored.observations).toHaveLength(job.observations.length);
    for (const { key } of stored.observations) expect(z.uuid().safeParse(key).success).toBe(true);
    expect(z.uuid().safeParse(stored.carWrites?.[0]?.key).success).toBe(true);
    expect(stored.visit).toMatchObject({ complaint: 'a lamp' });
  });

  it('that is too long to be a visit is refused with where and why', async () => {
    const job = fullJob(false);
    const [seen] = job.observations;
    const response = await ines.send('POST', '/api/assess', {
      ...job,
      observations: Array.from({ length: 5001 }, () => seen),
    });
    expect(response.status).toBe(400);
    expect(problemSchema.parse(await response.json()).error.issues?.[0]?.path).toBe('observations');
  });
});

describe('the open door', () => {
  it('answers others while it judges a job where every scan heard a crowd', async () => {
    const wheels = ['LF', 'RF', 'RR', 'LR', 'SP'] as const;
    const job = fullJob(true);
    const crowd = wheels.map((wheel, at) => ({
      kind: 'activation' as const,
      at: `2026-03-03T11:0${at}:00Z`,
      wheel,
      trigger: 'pulsed' as const,
      replies: Array.from({ length: 16 }, (_, n) => ({
        id: `4B07C2${(n + at) % 16}${n % 10}`,
        kPa: 220 + n,
        rssiDbm: -50 - (n % 3),
      })),
    }));
    const sets = Array.from({ length: 6 }, (_, set) => ({ ids: wheels.map((_, n) => `51A0${set}00${n}`) }));
    const hard = { ...job, observations: [...job.observations, ...crowd], otherSets: sets };
    const started = performance.now();
    let judged = 0;
    const judging = Promise.all(
      Array.from({ length: 4 }, async () => {
        // On a slow machine one that would wait too long for its turn is told to come back.
        expect([200, 503]).toContain((await ines.send('POST', '/api/assess', hard)).status);
        judged = performance.now() - started;
      }),
    );
    const waits: number[] = [];
    while (judged === 0) {
      const from = performance.now();
      await ines.fetch('/api/health');
      waits.push(performance.now() - from);
    }
    await judging;
    // Four judgements one after the other; a health check in between waits for none of them.
    expect(Math.max(...waits.slice(1))).toBeLessThan(judged);
  });
});
