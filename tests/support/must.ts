import type { Result } from '../../src/core/result';

/** The value of a result that a test needs to be there. */
export function must<Value>(result: Result<Value>): Value {
  if (!result.ok) throw new Error(result.problem.message);
  return result.value;
}
