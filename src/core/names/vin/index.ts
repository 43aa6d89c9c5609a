/**
 * Vehicle identification numbers: 17 characters without I, O and Q (ISO 3779:2009). The ninth is a
 * check digit where 49 CFR 565.15 applies; elsewhere makers may leave it free. Tables from memory.
 */
// prettier-ignore
const values: Record<string, number> = {
  A: 1, B: 2, C: 3, D: 4, E: 5, F: 6, G: 7, H: 8,
  J: 1, K: 2, L: 3, M: 4, N: 5, P: 7, R: 9,
  S: 2, T: 3, U: 4, V: 5, W: 6, X: 7, Y: 8, Z: 9,
};
const weights = [8, 7, 6, 5, 4, 3, 2, 10, 0, 9, 8, 7, 6, 5, 4, 3, 2];
const checkPlace = 8;

export type VinVerdict =
  | { kind: 'valid' }
  | { kind: 'wrong-length'; length: number }
  | { kind: 'wrong-character'; character: string; at: number }
  | { kind: 'check-digit-differs'; expected: string; found: string };

/** The form for comparing and storing: upper case, no blanks or hyphens. */
export function canonicalVin(vin: string): string {
  return vin.replace(/[\s-]/g, '').toUpperCase();
}

/** The check digit these 17 characters call for: 0–9 or X; undefined where a character has no value. */
export function vinCheckDigit(vin: string): string | undefined {
  const sum = [...canonicalVin(vin)].reduce<number>((total, character, index) => {
    const value = /\d/.test(character) ? Number(character) : (values[character] ?? Number.NaN);
    return total + value * (weights[index] ?? 0);
  }, 0);
  if (Number.isNaN(sum)) return undefined;
  return sum % 11 === 10 ? 'X' : String(sum % 11);
}

export function judgeVin(vin: string): VinVerdict {
  const text = canonicalVin(vin);
  const at = [...text].findIndex((character) => !/[0-9A-HJ-NPR-Z]/.test(character));
  if (at >= 0) return { kind: 'wrong-character', character: text.charAt(at), at };
  if (text.length !== 17) return { kind: 'wrong-length', length: text.length };
  const expected = vinCheckDigit(text) ?? '';
  const found = text.charAt(checkPlace);
  return expected === found ? { kind: 'valid' } : { kind: 'check-digit-differs', expected, found };
}

/** The verdict as a sentence for the field, or nothing when all is well. */
export function vinAdvice(vin: string): string | undefined {
  const verdict = judgeVin(vin);
  switch (verdict.kind) {
    case 'valid':
      return undefined;
    case 'wrong-length':
      return `A VIN has 17 characters; this one has ${verdict.length}.`;
    case 'wrong-character':
      return `"${verdict.character}" does not occur in a VIN (no I, O or Q). Look at character ${verdict.at + 1} again.`;
    case 'check-digit-differs':
      return `The check digit is ${verdict.found}, these characters call for ${verdict.expected}. Compare it with the plate, or keep it where the maker uses no check digit.`;
  }
}
