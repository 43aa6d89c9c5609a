import { failure, success, type Result } from '../../result';

/** A file as text, in whichever of the usual ways it was written. */

/** Files of programs that are no text, by how they begin (published file signatures, from memory). */
const noText: readonly { begins: readonly number[]; what: string }[] = [
  { begins: [0x50, 0x4b, 0x03, 0x04], what: 'a workbook or an archive' },
  { begins: [0xd0, 0xcf, 0x11, 0xe0], what: 'an old workbook' },
  { begins: [0x25, 0x50, 0x44, 0x46], what: 'a PDF' },
  { begins: [0x1f, 0x8b], what: 'a packed file' },
  { begins: [0x89, 0x50, 0x4e, 0x47], what: 'a picture' },
  { begins: [0xff, 0xd8, 0xff], what: 'a picture' },
];

const byMark: readonly { begins: readonly number[]; encoding: string }[] = [
  { begins: [0xef, 0xbb, 0xbf], encoding: 'utf-8' },
  { begins: [0xff, 0xfe], encoding: 'utf-16le' },
  { begins: [0xfe, 0xff], encoding: 'utf-16be' },
];

const beginsWith = (bytes: Uint8Array, begins: readonly number[]) =>
  begins.every((byte, at) => bytes[at] === byte);

/**
 * By its mark; without one as UTF-8 where it is, else as Western European (windows-1252), which older programs write.
 * Problem: `not-a-list`.
 */
export function decodeText(bytes: Uint8Array): Result<string> {
  const other = noText.find(({ begins }) => beginsWith(bytes, begins));
  if (other) return notAList(`This is ${other.what}. Save the list as CSV, then choose that file.`);
  const marked = byMark.find(({ begins }) => beginsWith(bytes, begins));
  const encoding = marked?.encoding ?? (isUtf8(bytes) ? 'utf-8' : 'windows-1252');
  const text = new TextDecoder(encoding).decode(bytes).replace(/\0+$/, '');
  if (!marked && text.includes('\0'))
    return notAList('This is no text. Save the list as CSV, then choose that file.');
  return success(text);
}

function isUtf8(bytes: Uint8Array): boolean {
  try {
    new TextDecoder('utf-8', { fatal: true }).decode(bytes);
    return true;
  } catch {
    return false;
  }
}

export const notAList = (sentence: string) => failure('not-a-list', sentence);
