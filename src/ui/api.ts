import type { AnswerOf, BodyOf } from '../contract';
import { nowHeader, personHeader } from '../contract/headers';
import type { RouteName } from '../contract/routes';
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
  const sent: unknown = body ?? file;
  let response: Response;
  let sentMs = 0;
  try {
    // The addresses come when the first is needed, as the schemas below: the page shows without them.
    const { routes } = await import('../contract/routes');
    const [method, address] = routes[name];
    const path = address.replace('{id}', encodeURIComponent(id));
    sentMs = Date.now();
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
