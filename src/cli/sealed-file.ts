import { createCipheriv, createDecipheriv, randomBytes, scrypt } from 'node:crypto';
import { createReadStream, createWriteStream, openSync, readSync, closeSync, statSync } from 'node:fs';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { Trouble } from './say';

/**
 * A file that says nothing without a passphrase: AES-256-GCM (NIST SP 800-38D) by a key that scrypt makes of the passphrase
 * (RFC 7914). It begins with its name, the salt and the nonce, and ends with the tag that shows it is whole.
 */

const name = Buffer.from('hacienda-sealed/1\n');
const [saltBytes, nonceBytes, tagBytes] = [16, 12, 16];
const headBytes = name.length + saltBytes + nonceBytes;
/** About 128 MiB a guess (common practice for files at rest). */
const cost = { N: 2 ** 17, r: 8, p: 1, maxmem: 256 * 2 ** 20 };

const keyOf = (passphrase: string, salt: Buffer): Promise<Buffer> =>
  new Promise((resolve, reject) => {
    scrypt(passphrase.normalize('NFKC'), salt, 32, cost, (error, key) =>
      error ? reject(error) : resolve(key),
    );
  });

export async function sealFile(plain: string, sealed: string, passphrase: string): Promise<void> {
  const [salt, nonce] = [randomBytes(saltBytes), randomBytes(nonceBytes)];
  const cipher = createCipheriv('aes-256-gcm', await keyOf(passphrase, salt), nonce);
  async function* parts(): AsyncGenerator<Buffer> {
    yield Buffer.concat([name, salt, nonce]);
    for await (const part of createReadStream(plain)) yield cipher.update(part as Buffer);
    yield cipher.final();
    yield cipher.getAuthTag();
  }
  await pipeline(parts, createWriteStream(sealed, { mode: 0o600 }));
}

export const isSealed = (file: string): boolean => bytesOf(file, 0, name.length).equals(name);

/**
 * Opens a sealed file into another, which may be used once this has come to its end: before, nobody knows whether it is what
 * was sealed. Throws `Trouble` where the passphrase is another, or the file is torn or changed.
 */
export async function openFile(sealed: string, plain: string, passphrase: string): Promise<void> {
  const { size } = statSync(sealed);
  const head = bytesOf(sealed, 0, headBytes);
  const salt = head.subarray(name.length, name.length + saltBytes);
  const nonce = head.subarray(name.length + saltBytes);
  const key = await keyOf(passphrase, salt);
  const ends = size - tagBytes;
  try {
    const decipher = createDecipheriv('aes-256-gcm', key, nonce);
    decipher.setAuthTag(bytesOf(sealed, Math.max(headBytes, ends), tagBytes));
    await pipeline(
      ends > headBytes ? createReadStream(sealed, { start: headBytes, end: ends - 1 }) : Readable.from([]),
      decipher,
      createWriteStream(plain, { mode: 0o600 }),
    );
  } catch {
    throw new Trouble(`${sealed} cannot be opened: another passphrase sealed it, or it is torn.`);
  }
}

/** So many bytes from a place; fewer where the file ends. */
function bytesOf(file: string, from: number, count: number): Buffer {
  const bytes = Buffer.alloc(count);
  const opened = openSync(file, 'r');
  try {
    return bytes.subarray(0, readSync(opened, bytes, 0, count, from));
  } finally {
    closeSync(opened);
  }
}
