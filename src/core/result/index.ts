/**
 * What can go wrong in front of a person is a value, not an exception: a code for
 * programs, a sentence for people that says what to do.
 */
export interface Problem {
  code: ProblemCode;
  message: string;
  issues?: Issue[];
}

/** All there are: a program may tell them apart. */
export const problemCodes = [
  // Of what was sent.
  'impossible',
  'impossible-size',
  'invalid-input',
  'invalid-job',
  'not-a-code',
  'not-a-figure',
  'not-a-list',
  'not-a-size',
  'not-json',
  'json-only',
  'passphrase-short',
  'passphrase-common',
  'pin-unfit',
  'too-large',
  'too-long',
  'unknown-unit',
  'warm-not-cold',
  'check-one-point',
  // Of who sent it.
  'foreign-origin',
  'not-allowed',
  'not-paired',
  'not-signed-in',
  'not-yourself',
  'last-manager',
  'second-factor-first',
  'too-many-attempts',
  'too-many-requests',
  'wrong-code',
  'code-too-late',
  'wrong-name-or-passphrase',
  // Of what it is about.
  'not-found',
  'no-receiver',
  'not-in-catalogue',
  'no-such-wheel',
  'nothing-to-correct',
  'torn-label',
  'unknown-device',
  'unknown-gauge',
  'unknown-follow-up',
  'unknown-job',
  'unknown-label',
  'unknown-list',
  'unknown-token',
  'unknown-shop',
  'unknown-address',
  'unknown-flag',
  'unknown-customer',
  'unknown-part',
  'unknown-person',
  'unknown-procedure',
  'unknown-profile',
  'unknown-run',
  'unknown-table',
  'unknown-session',
  'unknown-set',
  'unknown-vehicle',
  'unknown-write',
  'unreadable-record',
  // Of what others did meanwhile, or must do first.
  'already-corrected',
  'already-merged',
  'list-changed',
  'cars-in-shop',
  'already-open',
  'cancelled',
  'cradle-crowded',
  'cradle-empty',
  'handed-over',
  'job-full',
  'rack-taken',
  'id-elsewhere',
  'key-in-use',
  'name-taken',
  'not-proved',
  'other-car',
  'read-first',
  'run-ended',
  'run-too-long',
  'run-under-way',
  'sensor-spent',
  'stale',
  'supply-voltage-low',
  'write-under-way',
  'wrong-part',
  // Of devices, services and the connection.
  'busy',
  'car-refused',
  'car-silent',
  'car-unclear',
  'device-refused',
  'device-silent',
  'device-unclear',
  'device-unreachable',
  'lead-unreachable',
  'no-lead',
  'no-practice',
  'no-programmer',
  'no-tool',
  'no-weather',
  'offline',
  'server-error',
  'weather-unclear',
  'weather-unreachable',
] as const;
export type ProblemCode = (typeof problemCodes)[number];

/** One fault in a document: where (dotted path) and what. */
export interface Issue {
  path: string;
  message: string;
}

interface Failure {
  ok: false;
  problem: Problem;
}
export type Result<T> = { ok: true; value: T } | Failure;

export const success = <T>(value: T): Result<T> => ({ ok: true, value });

export const failure = (code: ProblemCode, message: string, issues?: Issue[]): Failure => ({
  ok: false,
  problem: issues ? { code, message, issues } : { code, message },
});
