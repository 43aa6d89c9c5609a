import { setting } from '../settings';
import type { APIContext } from 'astro';
import { z } from 'zod';
import { parseJson } from '../contract/document';
import { issuesOf } from '../core/result/issues';
import {
  contracts,
  statusOf,
  type AnswerOf,
  type BodyOf,
  type QueryOf,
  type Contract,
  type RouteName,
} from '../contract';
import { invalidInput, tooLarge } from '../contract/refusals';
import { success, type Problem, type Result } from '../core/result';
import type { Person } from '../services/people';

/** The cookie that names a session. */
export const sessionCookie = 'hacienda_session';

/** The cookie of a browser somebody has signed in with before: its attempts are counted apart. */
export const knownCookie = 'hacienda_known';

/** The cookie that names the shop of a chain that is looked into. */
export const lookingCookie = 'hacienda_looking';

/** The cookie that names a paired device. */
export const deviceCookie = 'hacienda_device';
export const deviceDays = 400;

/** Whether the shop is reached over HTTPS: with a certificate of its own, or behind a proxy that has one. */
export const isHttps = (): boolean =>
  setting('HACIENDA_CERTIFICATE') !== undefined || setting('HACIENDA_HTTPS') === true;

/** How every cookie is kept: out of reach of scripts and of other sites. */
export const cookieKept = (maxAge: number) =>
  ({ httpOnly: true, sameSite: 'strict', secure: isHttps(), path: '/', maxAge }) as const;

/** What the browser calls itself. */
export const agentOf = (request: Request): string => request.headers.get('user-agent') ?? '';

/** A body larger than this is not read to its end. A job file of a long visit has some 100 kB. */
const largestBody = 2 * 2 ** 20;
/** Of a body that is too large so much is read past; beyond it the connection is cut. */
const patienceBytes = 32 * 2 ** 20;

export function json(value: unknown, status = 200, headers: Record<string, string> = {}): Response {
  return new Response(JSON.stringify(value), {
    status,
    headers: { 'content-type': 'application/json; charset=utf-8', 'cache-control': 'no-store', ...headers },
  });
}

/** `{ error: { code, message, issues? } }` with the status that goes with the code. */
export const problemResponse = (problem: Problem): Response =>
  json({ error: problem }, statusOf[problem.code]);

export const respond = (result: Result<unknown>): Response =>
  result.ok ? json(result.value) : problemResponse(result.problem);

/** The body as text, if it is not too large: then the rest is read past, so that the answer arrives. Problem: `too-large`. */
export async function bodyText(request: Request, most = largestBody): Promise<Result<string>> {
  const decoder = new TextDecoder();
  let size = 0;
  let text = '';
  if (request.body) {
    for await (const chunk of request.body as unknown as AsyncIterable<Uint8Array>) {
      size += chunk.byteLength;
      if (size > patienceBytes) break;
      text = size > most ? '' : text + decoder.decode(chunk, { stream: true });
    }
  }
  return size > most ? tooLarge(most / 2 ** 20) : success(text + decoder.decode());
}

/** The body as JSON of a shape. Problems: `too-large`, `not-json`, `invalid-input`. */
export async function readBody<Body>(
  request: Request,
  schema: z.ZodType<Body>,
  most?: number,
): Promise<Result<Body>> {
  const text = await bodyText(request, most);
  if (!text.ok) return text;
  const document = parseJson(text.value);
  if (!document.ok) return document;
  const parsed = schema.safeParse(document.value);
  return parsed.success ? success(parsed.data) : invalidInput(issuesOf(parsed.error));
}

/** Who asks. The middleware lets nobody through to where this is called without a session. */
export function personOf(context: APIContext): Person {
  const { person } = context.locals;
  if (!person) throw new Error('an endpoint that needs a session was reached without one');
  return person;
}

/** The token of the session that asks. */
export const tokenOf = ({ cookies }: APIContext): string => cookies.get(sessionCookie)?.value ?? '';

/** What a use case is asked with: its body, who asks, and what the address names and adds. */
interface Asked<Name extends RouteName> {
  body: BodyOf<Name>;
  query: QueryOf<Name>;
  who: Person;
  /** The ID in the address; empty where it has none. */
  id: string;
  context: APIContext;
}

/** What use cases do: each calls one service. */
export type Works = {
  [Name in RouteName]: (asked: Asked<Name>) => Promise<Result<AnswerOf<Name>>>;
};

/** Answers a use case: parses what its contract says, has it done, and answers. */
export async function answerAs<Name extends RouteName>(
  name: Name,
  work: Works[Name],
  { id, context }: { id: string; context: APIContext },
): Promise<Response> {
  const contract: Contract = contracts[name];
  const body = contract.body
    ? await readBody(context.request, contract.body, contract.mostBytes)
    : success(undefined);
  if (!body.ok) return problemResponse(body.problem);
  const query = parseQuery(context.url, contract.query);
  if (!query.ok) return problemResponse(query.problem);
  // The contract's own schemas made them.
  const asked = { body: body.value as BodyOf<Name>, query: query.value as QueryOf<Name> };
  return respond(await work({ ...asked, who: personOf(context), id, context }));
}

/** What stands behind the question mark. Problem: `invalid-input`. */
export function parseQuery<Schema extends z.ZodType>(
  url: URL,
  schema: Schema | undefined,
): Result<z.infer<Schema> | undefined> {
  const parsed = schema?.safeParse(Object.fromEntries(url.searchParams));
  return !parsed || parsed.success ? success(parsed?.data) : invalidInput(issuesOf(parsed.error));
}

/** Only a path of this app, by parsing it as a browser would: never an address somebody put into the link. */
export function localPath(asked: string | null): string {
  const here = 'http://here.invalid';
  if (!asked || /[\u0000-\u0020\\]/.test(asked) || !asked.startsWith('/') || !URL.canParse(asked, here))
    return '/';
  const { origin, pathname, search } = new URL(asked, here);
  // Dots are resolved by now: what is left may begin like another site's name (`/..//elsewhere.example`).
  return origin === here && !pathname.startsWith('//') ? pathname + search : '/';
}

export const isUuid = (text: string): boolean => z.uuid().safeParse(text).success;
