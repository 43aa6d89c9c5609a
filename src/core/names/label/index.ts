import type { Position } from '../wheel';
import { failure, success, type Result } from '../../result';

/**
 * The code on a label: eight characters, the last a check. It says nothing by itself; the shop knows what it is on. No
 * character looks like another, and one that is wrong or two that are exchanged are noticed.
 */

/** Digits and capitals without I, L, O and U (Crockford's Base 32, from memory): 0 and 1 stand for what looks like them. */
const alphabet = '0123456789ABCDEFGHJKMNPQRSTVWXYZ';
/** The order of check characters: ISO 7064 counts in 36. */
const order = '0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZ';
const bodyLength = 7;
export const codeLength = bodyLength + 1;

/** What a label is on. */
export const labelled = ['set', 'wheel', 'sensor', 'key'] as const;
export type Labelled = (typeof labelled)[number];

/** One thing that can have a label. */
export type LabelTarget =
  | { of: 'key'; vehicleId: string }
  | { of: 'set'; vehicleId: string; wheelSetId: string }
  | { of: 'wheel'; vehicleId: string; wheelSetId: string; wheel: Position }
  | { of: 'sensor'; sensorId: string };

/**
 * The check character of ISO 7064, MOD 37,36 (from memory; checked against a published identifier that uses it): notices
 * every single wrong character, and an exchange of neighbours in all but one code of a hundred: counted, not from the
 * standard. Those few are not given out.
 */
export function checkCharacter(body: string): string {
  let product = 36;
  for (const character of body) {
    const sum = (product + order.indexOf(character)) % 36 || 36;
    product = (sum * 2) % 37;
  }
  return order[(37 - product) % 36] ?? '';
}

/** A new code. `random` gives a whole number from 0 to below its argument. */
export function newCode(random: (below: number) => number): string {
  for (;;) {
    const body = Array.from({ length: bodyLength }, () => alphabet[random(alphabet.length)]).join('');
    const check = checkCharacter(body);
    const code = body + check;
    // A check character that could be misread is as bad as none; likewise one that stays right for other codes.
    if (alphabet.includes(check) && !exchangesOf(code).some(isRight)) return code;
  }
}

/** A code with each two neighbours exchanged, where that makes another. */
const exchangesOf = (code: string): string[] =>
  [...code]
    .map((character, at) => code.slice(0, at) + code.charAt(at + 1) + character + code.slice(at + 2))
    .filter((exchanged) => exchanged !== code);

const isRight = (code: string): boolean => checkCharacter(code.slice(0, -1)) === code.at(-1);

/** Whether what was typed or seen has the shape of a code, whole or in part. */
export const looksLikeCode = (text: string): boolean => readCode(text).ok;

/**
 * A code as it was typed or read: blanks and hyphens left out, O for 0, I and L for 1. Problem: `torn-label`, for one that
 * lacks characters or whose check does not fit.
 */
export function readCode(text: string): Result<string> {
  const code = text.toUpperCase().replace(/[\s-]/g, '').replaceAll('O', '0').replace(/[IL]/g, '1');
  const isWhole = code.length === codeLength && [...code].every((character) => alphabet.includes(character));
  if (isWhole && isRight(code)) return success(code);
  return failure(
    'torn-label',
    isWhole
      ? 'A character of this label is not as it was printed. Read it again, or find the car by its plate.'
      : `A label has ${codeLength} characters, and this has ${code.length}. Read it again, or find the car by its plate.`,
  );
}

/** In two groups for reading: "7K3M 9Q2F". */
export const groupedCode = (code: string): string => `${code.slice(0, 4)} ${code.slice(4)}`;
