import type { APIContext, APIRoute } from 'astro';
import { z } from 'zod';
import { issuesOf } from '../core/job/schema';
import { failure, success, type Outcome, type Problem } from '../core/outcome';
import type { Person } from '../services/people';

/** The cookie that names a session. */
export const sessionCookie = 'hacienda_session';

/** A body larger than this is not read to its end. A job file of a long visit has some 100 kB. */
const largestBody = 2 * 2 ** 20;
/** Of a body that is too large so much is read past; beyond it the connection is cut. */
const patienceBytes = 32 * 2 ** 20;

/** Which HTTP status a problem has; all others are 400. */
const statusOf: Record<string, number> = {
  'not-signed-in': 401,
  'wrong-name-or-passphrase': 401,
  'not-allowed': 403,
  'foreign-origin': 403,
  'unknown-job': 404,
  'unknown-write': 404,
  'unknown-gauge': 404,
  'unknown-person': 404,
  'unknown-schema': 404,
  'not-found': 404,
  'already-corrected': 409,
  'handed-over': 409,
  'key-in-use': 409,
  'name-taken': 409,
  'not-proved': 409,
  'other-car': 409,
  'read-first': 409,
  stale: 409,
  'supply-voltage-low': 409,
  'write-under-way': 409,
  'too-large': 413,
  'too-long': 422,
  'too-many-attempts': 429,
  'too-many-requests': 429,
  busy: 503,
  'car-refused': 502,
  'car-silent': 502,
  'car-unclear': 502,
  'device-refused': 502,
  'device-silent': 502,
  'device-unclear': 502,
  'device-unreachable': 502,
  'weather-unreachable': 502,
  'weather-unclear': 502,
  'lead-unreachable': 502,
  'no-lead': 503,
  'no-practice': 503,
  'no-tool': 503,
  'no-weather': 503,
};

export function json(value: unknown, status = 200, headers: Record<string, string> = {}): Response {
  return new Response(JSON.stringify(value), {
    status,
    headers: { 'content-type': 'application/json; charset=utf-8', 'cache-control': 'no-store', ...headers },
  });
}

/** `{ error: { code, message, issues? } }` with the status that goes with the code. */
export const problemResponse = (problem: Problem): Response =>
  json({ error: problem }, statusOf[problem.code] ?? 400);

export const respond = (outcome: Outcome<unknown>): Response =>
  outcome.ok ? json(outcome.value) : problemResponse(outcome.problem);

/** The body as text, if it is not too large: then the rest is read past, so that the answer arrives. Problem: `too-large`. */
export async function bodyText(request: Request): Promise<Outcome<string>> {
  const decoder = new TextDecoder();
  let size = 0;
  let text = '';
  if (request.body) {
    for await (const chunk of request.body as unknown as AsyncIterable<Uint8Array>) {
      size += chunk.byteLength;
      if (size > patienceBytes) break;
      text = size > largestBody ? '' : text + decoder.decode(chunk, { stream: true });
    }
  }
  return size > largestBody
    ? failure('too-large', `This is larger than ${largestBody / 2 ** 20} MB. Send less at once.`)
    : success(text + decoder.decode());
}

/** The body as JSON of a shape. Problems: `too-large`, `not-json`, `invalid-input`. */
export async function readBody<Body>(request: Request, schema: z.ZodType<Body>): Promise<Outcome<Body>> {
  const text = await bodyText(request);
  if (!text.ok) return text;
  const document = parseJson(text.value);
  if (!document.ok) return document;
  const parsed = schema.safeParse(document.value);
  return parsed.success
    ? success(parsed.data)
    : failure(
        'invalid-input',
        'Something in this entry is not right; nothing was stored.',
        issuesOf(parsed.error),
      );
}

/** Problem: `not-json`. */
export function parseJson(text: string): Outcome<unknown> {
  try {
    return success(JSON.parse(text));
  } catch {
    return failure('not-json', 'This is not JSON; nothing was stored.');
  }
}

/** Who asks. The middleware lets nobody through to where this is called without a session. */
export function personOf(context: APIContext): Person {
  const { person } = context.locals;
  if (!person) throw new Error('an endpoint that needs a session was reached without one');
  return person;
}

/** An endpoint that parses a body, calls one service, and answers. */
export const post =
  <Body>(
    schema: z.ZodType<Body>,
    serve: (body: Body, who: Person, context: APIContext) => Promise<Outcome<unknown>>,
  ): APIRoute =>
  async (context) => {
    const body = await readBody(context.request, schema);
    return body.ok
      ? respond(await serve(body.value, personOf(context), context))
      : problemResponse(body.problem);
  };

const uuid = z.uuid();

/** A GET that needs nobody's leave beyond being signed in. */
export const getOf =
  (serve: (context: APIContext) => Promise<Outcome<unknown>>): APIRoute =>
  async (context) =>
    respond(await serve(context));

/** An endpoint below something with an ID, which is checked before anything else. */
const postBelow =
  (unknown: () => Outcome<never>) =>
  <Body>(
    schema: z.ZodType<Body>,
    serve: (id: string, body: Body, who: Person) => Promise<Outcome<unknown>>,
  ): APIRoute =>
    post(schema, async (body, who, { params }) => {
      const id = uuid.safeParse(params.id);
      return id.success ? serve(id.data, body, who) : unknown();
    });

const noSuchJob = () =>
  failure('unknown-job', 'There is no such job. Go back to the Yard and pick it there.');
const noSuchGauge = () =>
  failure('unknown-gauge', 'This gauge is not on the register. Go back to Gauges and pick it there.');

export const postToJob = postBelow(noSuchJob);
export const postToGauge = postBelow(noSuchGauge);

export const getOfJob =
  (serve: (id: string, context: APIContext) => Promise<Response>): APIRoute =>
  async (context) => {
    const id = uuid.safeParse(context.params.id);
    return id.success ? serve(id.data, context) : respond(noSuchJob());
  };

export const key = z.uuid();

export const isUuid = (text: string): boolean => uuid.safeParse(text).success;
