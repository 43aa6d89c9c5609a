import type { AnswerOf, BodyOf } from '../contract';
import { nowHeader, personHeader, routes, type RouteName } from '../contract/routes';
import { heardShop } from './clock';
import { answerUnclear, offline } from '../contract/refusals';
import { failure, success, type Result } from '../core/result';

interface Asked<Name extends RouteName> {
  /** What the address names. */
  id?: string;
  query?: Record<string, string>;
  /** The person it was entered by: nobody else's session takes it. */
  as?: string | undefined;
  body?: BodyOf<Name>;
  /** In place of a body: a document somebody picked. The shop says what is wrong with it. */
  file?: unknown;
}

/**
 * One request to the app, by the name of its use case. Every way it can fail is a problem with a sentence; what it
 * answers is held against the contract, so that nothing else gets in.
 */
export async function ask<Name extends RouteName>(
  name: Name,
  { id = '', query, as, body, file }: Asked<Name> = {},
): Promise<Result<AnswerOf<Name>>> {
  const [method, address] = routes[name];
  const path = address.replace('{id}', encodeURIComponent(id));
  const sent: unknown = body ?? file;
  let response: Response;
  const sentMs = Date.now();
  try {
    response = await fetch(query ? `${path}?${new URLSearchParams(query).toString()}` : path, {
      method,
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
  // The schemas come when they are first needed: the page shows without them.
  const { contracts, problemSchema } = await import('../contract');
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
