/** Unified diagnostic services (ISO 14229-1), the few a tire-pressure receiver needs. Bytes from memory. */
export const service = {
  session: 0x10,
  clearCodes: 0x14,
  readCodes: 0x19,
  readData: 0x22,
  writeData: 0x2e,
  testerPresent: 0x3e,
} as const;

export const extendedSession = 0x03;
export const reportByStatusMask = 0x02;
export const allCodes = [0xff, 0xff, 0xff] as const;
/** The standardised data identifier of the VIN (ISO 14229-1 annex C). */
export const vinIdentifier = 0xf190;

export const negative = {
  serviceNotSupported: 0x11,
  wrongLength: 0x13,
  conditionsNotCorrect: 0x22,
  outOfRange: 0x31,
  programmingFailure: 0x72,
  notInThisSession: 0x7f,
  pending: 0x78,
} as const;

const negativeText: Record<number, string> = {
  [negative.serviceNotSupported]: 'the module does not know this request',
  [negative.wrongLength]: 'the module expects another length',
  [negative.conditionsNotCorrect]: 'conditions are not right (ignition on, engine off, supply above 12.2 V)',
  [negative.outOfRange]: 'the module does not have this value',
  [negative.programmingFailure]: 'the module could not store it',
  [negative.notInThisSession]: 'not allowed in the present session',
};

export type Answer =
  | { kind: 'positive'; data: Uint8Array }
  /** The module needs more time: wait on. */
  | { kind: 'pending' }
  | { kind: 'negative'; code: number; reason: string }
  /** An answer to something else. */
  | { kind: 'stray' };

/** Reads a response to a request for `requested`; positive data follows the service byte. */
export function readAnswer(requested: number, message: Uint8Array): Answer {
  const [first, second, third] = message;
  if (first === requested + 0x40) return { kind: 'positive', data: message.slice(1) };
  if (first !== 0x7f || second !== requested || third === undefined) return { kind: 'stray' };
  if (third === negative.pending) return { kind: 'pending' };
  const reason = negativeText[third] ?? `code 0x${third.toString(16).toUpperCase().padStart(2, '0')}`;
  return { kind: 'negative', code: third, reason };
}

export const word = (value: number): [number, number] => [(value >> 8) & 0xff, value & 0xff];

/** The status bits of a code that matter here (ISO 14229-1 annex D). */
export const codeStatus = { testFailed: 0x01, confirmed: 0x08 } as const;

const systems = ['P', 'C', 'B', 'U'] as const;

/**
 * The first two bytes of a code as text: two bits for the system, then a digit of two bits and three
 * hexadecimal digits (ISO 15031-6 / SAE J2012): 0x5B 0x04 is C1B04.
 */
export function codeText(high: number, low: number): string {
  const digits = (((high & 0x3f) << 8) | low).toString(16).toUpperCase().padStart(4, '0');
  return `${systems[(high >> 6) as 0 | 1 | 2 | 3]}${digits}`;
}

/** The inverse of `codeText`; undefined where the text is not such a code. */
export function codeBytes(text: string): [number, number] | undefined {
  const match = /^([PCBU])([0-3][0-9A-F]{3})$/.exec(text.toUpperCase());
  if (!match?.[1] || !match[2]) return undefined;
  const system = systems.findIndex((letter) => letter === match[1]);
  return word((system << 14) | Number.parseInt(match[2], 16));
}
