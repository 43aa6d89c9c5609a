import {
  contracts,
  problemSchema,
  type AnswerOf,
  type BodyOf,
  type Contract,
  type RouteName,
} from '../contract';
import { nowHeader, personHeader } from '../contract/headers';
import { answerUnclear, offline } from '../contract/refusals';
import { failure, success, type Result } from '../core/result';
import { heardShop } from './clock';

export interface Asked<Name extends RouteName> {
  /** What the address names. */
  id?: string;
  query?: Record<string, string>;
  /** The person it was entered by: nobody else's session takes it. */
  as?: string | undefined;
  body?: BodyOf<Name>;
  /** In place of a body: a document somebody picked. The shop says what is wrong with it. */
  file?: unknown;
  /** It waits in an outbox, which asks again by itself: given up sooner, so that what waits behind it goes out. */
  queued?: boolean;
}

/**
 * So long an answer is waited for, ms. A connection that hangs, or a server that was killed with the question in its
 * hands, never says so.
 */
const patienceMs = { queued: 15_000, usual: 30_000, slow: 180_000 };

/** A shop that is held up for a moment is asked again after so long, ms, where asking twice is asking once. */
const pausesMs = [400, 1000, 2000, 3000];

/** Asks the shop, and again where it is held up and may be asked twice. Problems: those of the use case, `offline`, `server-error`. */
export async function request<Name extends RouteName>(
  name: Name,
  asked: Asked<Name>,
): Promise<Result<AnswerOf<Name>>> {
  const pauses = !asked.queued && isSameTwice(asked) ? pausesMs : [];
  for (const pause of pauses) {
    const answer = await askOnce(name, asked);
    if (answer.ok || answer.problem.code !== 'busy') return answer;
    await new Promise((resolve) => setTimeout(resolve, pause));
  }
  return askOnce(name, asked);
}

/** Nothing is sent, or under a key: then it is done once, however often it is asked for. */
const isSameTwice = ({ body, file }: { body?: unknown; file?: unknown }): boolean =>
  file === undefined && (body === undefined || (typeof body === 'object' && body !== null && 'key' in body));

async function askOnce<Name extends RouteName>(
  name: Name,
  { id = '', query, as, body, file, queued = false }: Asked<Name>,
): Promise<Result<AnswerOf<Name>>> {
  const sent: unknown = body ?? file;
  const contract: Contract = contracts[name];
  const [method, address] = contract.at;
  const path = address.replace('{id}', encodeURIComponent(id));
  const patience = queued ? 'queued' : contract.slow ? 'slow' : 'usual';
  const sentMs = Date.now();
  let response: Response;
  try {
    response = await fetch(query ? `${path}?${new URLSearchParams(query).toString()}` : path, {
      method,
      signal: AbortSignal.timeout(patienceMs[patience]),
      ...(sent !== undefined && {
        headers: { 'content-type': 'application/json', ...(as && { [personHeader]: as }) },
        body: JSON.stringify(sent),
      }),
    });
  } catch {
    return offline();
  }
  heardShop({ shopMs: Number(response.headers.get(nowHeader) ?? Number.NaN), sentMs, heardMs: Date.now() });
  const document: unknown = await response.json().catch(() => undefined);
  if (response.ok) {
    const answer = contracts[name].answer.safeParse(document);
    if (answer.success) return success(answer.data as AnswerOf<Name>);
  } else {
    const problem = problemSchema.safeParse(document);
    if (problem.success) {
      const { code, message, issues } = problem.data.error;
      return failure(code, message, issues);
    }
  }
  return answerUnclear();
}
