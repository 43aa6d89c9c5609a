import type { Labelled } from '../../names/label';
import { canonicalId } from '../../names/sensor-id';
import type { JobState } from '../../names/kinds';

/** What somebody typed into the one box, as each of the things it may be. */
export interface Query {
  /** As typed, without blanks around it. */
  text: string;
  /** As plates and VINs are kept: capitals and digits. */
  code: string;
  /** Words of a name, in small letters. */
  words: string[];
  /** A job's number. */
  number?: number;
  /** Digits of a sensor ID, read with letters that look like digits put right. */
  digits?: string;
}

/** Less than so many characters is no question yet. */
export const leastCharacters = 2;
export const mostCharacters = 80;
const leastDigits = 3;
const leastDigitsWithSlip = 6;
const largestNumber = 2_147_483_647;

/** Undefined where it is too short to look for. */
export function readQuery(typed: string): Query | undefined {
  const text = typed.trim().slice(0, mostCharacters);
  if (text.length < leastCharacters) return undefined;
  const code = text.toUpperCase().replace(/[^\p{L}\p{N}]/gu, '');
  const number = /^(?:job\s*|#\s*)?(\d{1,10})$/i.exec(text)?.[1];
  const digits = likeDigits(canonicalId(text));
  return {
    text,
    code,
    words: text
      .toLowerCase()
      .split(/[\s,;]+/)
      .filter(Boolean),
    ...(number !== undefined && Number(number) <= largestNumber && { number: Number(number) }),
    ...(/^[0-9A-F]+$/.test(digits) && digits.length >= leastDigits && digits.length <= 16 && { digits }),
  };
}

/** Letters no ID has, as the digits they look like. */
const alike: Record<string, string> = { O: '0', Q: '0', I: '1', L: '1', Z: '2', S: '5', G: '6' };
const likeDigits = (text: string): string => text.replace(/[OQILZSG]/g, (letter) => alike[letter] ?? letter);

/**
 * What an ID may hold where these digits stand in it with one slip: a digit wrong, lost, doubled, or two neighbours
 * exchanged. A dot stands for any digit. Empty for so few digits that too much would hold them: with six, three of them
 * still stand together whatever the slip, and that is what the index of parts is asked for.
 */
export function withSlip(digits: string): string[] {
  if (digits.length < leastDigitsWithSlip) return [];
  const before = (at: number) => digits.slice(0, at);
  const after = (at: number) => digits.slice(at);
  const meant = new Set<string>();
  for (let at = 0; at < digits.length; at += 1) {
    meant.add(`${before(at)}.${after(at + 1)}`);
    // Lost at an end, the rest still stands as it was typed.
    if (at > 0) meant.add(`${before(at)}.${after(at)}`);
    if (at > 0 && digits[at] === digits[at - 1]) meant.add(`${before(at)}${after(at + 1)}`);
    if (at > 0 && digits[at] !== digits[at - 1])
      meant.add(`${before(at - 1)}${digits[at] ?? ''}${digits[at - 1] ?? ''}${after(at + 1)}`);
  }
  return [...meant];
}

/** How far an ID is from what was typed: the ID, one that begins or ends so, one that holds it, one with a slip; 0 is nearest. */
export function distanceOf(id: string, digits: string): number {
  if (id === digits) return 0;
  if (id.startsWith(digits) || id.endsWith(digits)) return 1;
  return id.includes(digits) ? 2 : 3;
}

/** A vehicle as a list names it. */
export interface FoundVehicle {
  id: string;
  label: string;
  plate: string;
  vin: string | null;
  modelYear: number | null;
  customer: string | null;
  visits: number;
  lastVisitAt: string | null;
}

/** What was found, the nearest of each kind first. */
export type Found =
  | { kind: 'label'; code: string; of: Labelled; path: string }
  | ({ kind: 'vehicle' } & FoundVehicle)
  | { kind: 'sensor'; sensorId: string; slip: boolean; lastAt: string | null; vehicles: FoundVehicle[] }
  | {
      kind: 'job';
      id: string;
      number: number;
      state: JobState;
      openedAt: string;
      label: string;
      plate: string;
    };

/** A line of a list of jobs. */
export interface ListedJob {
  id: string;
  number: number;
  state: JobState;
  vehicleId: string;
  label: string;
  plate: string;
  customer: string | null;
  openedAt: string;
  openedBy: string;
  handedOverAt: string | null;
  /** Why it left though not all was proved. */
  unproved: string | null;
}
