import { failure, success, type Outcome, type Problem } from '../core/outcome';

const offline: Problem = {
  code: 'offline',
  message:
    'No connection to the shop. What you entered is kept here; it goes out when the connection is back.',
};

/** One request to the app; every way it can fail is a problem with a sentence. */
export async function ask<Value>(
  method: 'GET' | 'POST' | 'PATCH',
  path: string,
  body?: unknown,
): Promise<Outcome<Value>> {
  let response: Response;
  try {
    response = await fetch(path, {
      method,
      ...(body !== undefined && {
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify(body),
      }),
    });
  } catch {
    return { ok: false, problem: offline };
  }
  const answer: unknown = await response.json().catch(() => undefined);
  if (response.ok) return success(answer as Value);
  const problem = (answer as { error?: Problem } | undefined)?.error;
  return problem
    ? { ok: false, problem }
    : failure('server-error', 'The server did not answer as expected. Nothing is lost; try again.');
}
