import pino from 'pino';

/**
 * The server's log: a JSON object a line on standard error, for whatever collects them. What people typed, their names,
 * secrets and values of the database are in none of them: of an error its kind and place are told, and its message only
 * where that is made of the program's own words.
 */
export const log = pino(
  { base: { process: process.pid }, timestamp: pino.stdTimeFunctions.isoTime },
  pino.destination({ fd: 2, sync: true }),
);

/** Errors whose message says nothing of what somebody entered. */
const ownWords = new Set<unknown>([Error, TypeError, RangeError, ReferenceError]);

/** What of an error may be written down. */
export function traceOf(error: unknown): Record<string, unknown> {
  if (!(error instanceof Error)) return { error: typeof error };
  const { parent } = error as { parent?: { code?: unknown; constraint?: unknown } };
  const { code = parent?.code } = error as { code?: unknown };
  const frames = (error.stack ?? '').split('\n').filter((line) => /^\s+at /.test(line));
  return {
    error: error.constructor.name,
    ...(ownWords.has(error.constructor) && { message: error.message }),
    ...(typeof code === 'string' && { code }),
    ...(typeof parent?.constraint === 'string' && { rule: parent.constraint }),
    at: frames.slice(0, 8).map((line) => line.trim().slice('at '.length)),
  };
}
