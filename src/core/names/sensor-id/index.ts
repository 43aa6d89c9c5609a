/**
 * Sensor IDs. An ID is kept as it was read or typed and compared without regard to case,
 * blanks and hyphens; one of a wrong length is still an ID somebody typed.
 */

/** The form for comparing: upper case, no blanks, no hyphens. */
export function canonicalId(id: string): string {
  return isCanonical(id) ? id : id.replace(/[\s-]/g, '').toUpperCase();
}

/** Only digits and capitals: most IDs are, and they are compared often. */
function isCanonical(id: string): boolean {
  for (let at = 0; at < id.length; at += 1) {
    const code = id.charCodeAt(at);
    if (!((code >= 48 && code <= 57) || (code >= 65 && code <= 90))) return false;
  }
  return true;
}

export function sameId(a: string, b: string): boolean {
  return canonicalId(a) === canonicalId(b);
}

/** In groups of four for reading: "4B07 C2D1". */
export function groupedId(id: string): string {
  return (canonicalId(id).match(/.{1,4}/g) ?? []).join(' ');
}

/** Whether the ID is hexadecimal and of the length the car's family uses. */
export function isWellFormed(id: string, digits: number): boolean {
  return new RegExp(`^[0-9A-F]{${digits}}$`).test(canonicalId(id));
}

/** Families that print decimal: the same number in base ten; undefined where it is not hexadecimal. */
export function decimalOf(id: string): string | undefined {
  const text = canonicalId(id);
  return /^[0-9A-F]+$/.test(text) ? BigInt(`0x${text}`).toString() : undefined;
}

/** A printed decimal as hexadecimal of so many digits; undefined where it is no decimal or needs more. */
export function idFromDecimal(decimal: string, digits: number): string | undefined {
  const text = decimal.replace(/[\s.,']/g, '');
  if (!/^\d+$/.test(text)) return undefined;
  const id = BigInt(text).toString(16).toUpperCase().padStart(digits, '0');
  return id.length > digits ? undefined : id;
}

type Slip =
  | { kind: 'wrong-digit'; at: number }
  | { kind: 'lost-digit'; at: number }
  | { kind: 'doubled-digit'; at: number }
  | { kind: 'exchanged-neighbours'; at: number };

/**
 * The one slip that turns `meant` into `written`, if one does: a digit wrong, lost, doubled, or two
 * neighbours exchanged. `at` counts digits of `meant` from 0.
 */
export function slipBetween(meant: string, written: string): Slip | undefined {
  const from = canonicalId(meant);
  const to = canonicalId(written);
  if (from === to) return undefined;
  let at = 0;
  while (at < from.length && from[at] === to[at]) at += 1;
  const rest = (text: string, skip: number) => text.slice(at + skip);
  switch (to.length - from.length) {
    case 0:
      if (rest(from, 1) === rest(to, 1)) return { kind: 'wrong-digit', at };
      return rest(from, 2) === rest(to, 2) && from[at] === to[at + 1] && from[at + 1] === to[at]
        ? { kind: 'exchanged-neighbours', at }
        : undefined;
    case -1:
      return rest(from, 1) === rest(to, 0) ? { kind: 'lost-digit', at } : undefined;
    case 1:
      return at > 0 && to[at] === from[at - 1] && rest(to, 1) === rest(from, 0)
        ? { kind: 'doubled-digit', at: at - 1 }
        : undefined;
    default:
      return undefined;
  }
}

/**
 * IDs of a list that was pasted or typed: a wheel and its ID a line, or IDs alone, which go round the car in this order.
 * What is neither is left out.
 */
export function idsFromText<Wheel extends string>(
  text: string,
  order: readonly Wheel[],
): Partial<Record<Wheel, string>> {
  const found: Partial<Record<Wheel, string>> = {};
  let next = 0;
  for (const line of text.split(/[\n;,]+|\s{2,}|\t/)) {
    const words = line.trim().split(/[\s:=]+/);
    const named = order.find((wheel) => words[0]?.toUpperCase() === wheel);
    const id = canonicalId((named ? words.slice(1) : words).join(''));
    if (!/^[0-9A-F]{4,16}$/.test(id)) continue;
    const wheel = named ?? order[next];
    if (wheel === undefined) continue;
    found[wheel] = id;
    next = order.indexOf(wheel) + 1;
  }
  return found;
}

/** A slip in words, with the digits that differ. */
export function describeSlip(slip: Slip, meant: string, written: string): string {
  const from = canonicalId(meant);
  const to = canonicalId(written);
  const place = `digit ${slip.at + 1}`;
  switch (slip.kind) {
    case 'wrong-digit':
      return `${place} is ${to[slip.at]}, should be ${from[slip.at]}`;
    case 'lost-digit':
      return `${place}, ${from[slip.at]}, is missing`;
    case 'doubled-digit':
      return `${place}, ${from[slip.at]}, is doubled`;
    case 'exchanged-neighbours':
      return `digits ${slip.at + 1} and ${slip.at + 2} are exchanged`;
  }
}

/** The radiotelephony spelling alphabet (ICAO Annex 10 volume II, from memory), for reading an ID aloud. */
const spoken: Record<string, string> = {
  A: 'alfa',
  B: 'bravo',
  C: 'charlie',
  D: 'delta',
  E: 'echo',
  F: 'foxtrot',
  0: 'zero',
  1: 'one',
  2: 'two',
  3: 'three',
  4: 'four',
  5: 'five',
  6: 'six',
  7: 'seven',
  8: 'eight',
  9: 'nine',
};

export function spellAloud(id: string): string {
  return [...canonicalId(id)].map((digit) => spoken[digit] ?? digit).join(' ');
}

/** Whether something may be the ID of a sensor at all: any text of its length that has no control characters. */
export const isSearchable = (id: string): boolean =>
  id.length <= 64 && canonicalId(id) !== '' && !/[\p{Cc}\p{Cs}]/u.test(id);
