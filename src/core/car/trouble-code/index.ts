import { failure, success, type Result } from '../../result';
import { codeBytes, codeText } from '../uds';

/** A trouble code and what its form alone tells (ISO 15031-6 / SAE J2012, from memory). */
export interface TroubleCode {
  /** "C1B31". */
  text: string;
  bytes: [number, number];
  /** The third byte, where it was given: how the part failed. */
  failureType: number | undefined;
  system: 'powertrain' | 'chassis' | 'body' | 'network';
  /** Who says what the rest means: a standard, or the vehicle's maker (then its profile). */
  owner: 'standard' | 'maker' | 'reserved';
}

const systems: Record<string, TroubleCode['system']> = {
  P: 'powertrain',
  C: 'chassis',
  B: 'body',
  U: 'network',
};

/**
 * Reads "C1B31", "C1B31-13", or the bytes "5B 31" or "5B3113". Problem: `not-a-code`.
 */
export function readTroubleCode(typed: string): Result<TroubleCode> {
  const text = typed.toUpperCase().replace(/0X|[\s:-]/g, '');
  const named = /^([PCBU][0-3][0-9A-F]{3})([0-9A-F]{2})?$/.exec(text);
  const raw = /^([0-9A-F]{2})([0-9A-F]{2})([0-9A-F]{2})?$/.exec(text);
  const bytes = named?.[1]
    ? codeBytes(named[1])
    : raw && ([Number.parseInt(raw[1] ?? '', 16), Number.parseInt(raw[2] ?? '', 16)] as [number, number]);
  if (!bytes) {
    return failure('not-a-code', 'Type a code as a tool shows it (C1B31, C1B31-13) or its bytes (5B 31).');
  }
  const failure3 = named?.[2] ?? raw?.[3];
  const name = codeText(...bytes);
  return success({
    text: name,
    bytes,
    failureType: failure3 === undefined ? undefined : Number.parseInt(failure3, 16),
    system: systems[name.charAt(0)] ?? 'network',
    owner: ownerOf(name),
  });
}

/** By letter and second character; P3 is shared between maker (P30 to P33) and standard (P34 to P39). */
function ownerOf(name: string): TroubleCode['owner'] {
  const [letter, group, third = '0'] = name;
  if (group === '0' || (letter === 'P' && group === '2')) return 'standard';
  if (group !== '3') return 'maker';
  if (letter === 'P') return third >= '4' ? 'standard' : 'maker';
  return letter === 'U' ? 'standard' : 'reserved';
}
