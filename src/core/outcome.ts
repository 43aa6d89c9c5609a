/**
 * What can go wrong in front of a person is a value, not an exception: a code for
 * programs, a sentence for people that says what to do.
 */
export interface Problem {
  code: string;
  message: string;
  issues?: Issue[];
}

/** One fault in a document: where (dotted path) and what. */
export interface Issue {
  path: string;
  message: string;
}

export type Outcome<T> = { ok: true; value: T } | { ok: false; problem: Problem };

export const success = <T>(value: T): Outcome<T> => ({ ok: true, value });

export const failure = <T = never>(code: string, message: string, issues?: Issue[]): Outcome<T> => ({
  ok: false,
  problem: issues ? { code, message, issues } : { code, message },
});
