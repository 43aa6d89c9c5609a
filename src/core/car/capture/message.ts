import { toHex } from '../can/frame';
import { codeText } from '../uds';

/** What a message of unified diagnostic services says, as far as its bytes alone tell it. */
export interface Meaning {
  /** The service that is asked for, two hexadecimal digits. */
  service: string;
  kind: 'request' | 'positive' | 'negative';
  /** Why it was refused, two hexadecimal digits. */
  responseCode?: string;
  /** Data identifiers that are read or written, four hexadecimal digits each. An answer says its first. */
  identifiers?: string[];
  codes?: { code: string; failureType: string; status: string }[];
}

/** The services of ISO 14229-1 (2020, table 2), from memory. */
const services: ReadonlySet<number> = new Set([
  ...[0x10, 0x11, 0x14, 0x19, 0x22, 0x23, 0x24, 0x27, 0x28, 0x29, 0x2a, 0x2c, 0x2e, 0x2f, 0x31],
  ...[0x34, 0x35, 0x36, 0x37, 0x38, 0x3d, 0x3e, 0x83, 0x84, 0x85, 0x86, 0x87],
]);
const readData = 0x22;
const writeData = 0x2e;
const readCodes = 0x19;
const byStatusMask = 0x02;
const refusal = 0x7f;
/** An answer bears the number of what was asked and this (ISO 14229-1). */
const answered = 0x40;

/** Undefined where the message is of no service known here. */
export function meaningOf(message: Uint8Array): Meaning | undefined {
  const [first, second, third] = message;
  if (first === undefined) return undefined;
  if (first === refusal)
    return second !== undefined && third !== undefined && services.has(second)
      ? { service: hex(second), kind: 'negative', responseCode: hex(third) }
      : undefined;
  if (services.has(first)) return { service: hex(first), kind: 'request', ...asked(first, message) };
  const service = first - answered;
  if (!services.has(service)) return undefined;
  return { service: hex(service), kind: 'positive', ...told(service, message) };
}

const hex = (byte: number): string => toHex(Uint8Array.of(byte));
const identifierAt = (message: Uint8Array, at: number): string => toHex(message.slice(at, at + 2));

function asked(service: number, message: Uint8Array): Pick<Meaning, 'identifiers'> {
  const count = service === readData ? Math.floor((message.length - 1) / 2) : message.length >= 3 ? 1 : 0;
  if (service !== readData && service !== writeData) return {};
  return { identifiers: Array.from({ length: count }, (_, place) => identifierAt(message, 1 + 2 * place)) };
}

/** How long each value is, an answer does not say: of several in one, the first is sure. */
function told(service: number, message: Uint8Array): Pick<Meaning, 'identifiers' | 'codes'> {
  if (service === readData || service === writeData)
    return { identifiers: message.length >= 3 ? [identifierAt(message, 1)] : [] };
  return service === readCodes && message[1] === byStatusMask ? { codes: codesIn(message) } : {};
}

/** Four bytes each behind the mask of available states: two of the code, its failure type, its status (ISO 14229-1). */
function codesIn(message: Uint8Array): Meaning['codes'] {
  const count = Math.floor(Math.max(0, message.length - 3) / 4);
  return Array.from({ length: count }, (_, place) => {
    const [high = 0, low = 0, failureType = 0, status = 0] = message.slice(3 + 4 * place);
    return { code: codeText(high, low), failureType: hex(failureType), status: hex(status) };
  });
}
