import { createCipheriv, createDecipheriv, randomBytes } from 'node:crypto';
import { setting } from '../settings';

/**
 * What the shop must be able to read again, but a copy of its database must not tell: sealed by a key that is kept beside
 * the database, not in it (AES-256-GCM, NIST SP 800-38D).
 */

const [nonceBytes, tagBytes] = [12, 16];

/** 32 bytes in base64, from `HACIENDA_KEY`. Throws where it is not set: the start command makes one, and sets it. */
function key(): Buffer {
  const said = setting('HACIENDA_KEY');
  if (said === undefined) throw new Error('HACIENDA_KEY is not set; start the app with ./hacienda');
  return Buffer.from(said, 'base64');
}

export function seal(text: string): string {
  const nonce = randomBytes(nonceBytes);
  const cipher = createCipheriv('aes-256-gcm', key(), nonce);
  const sealed = Buffer.concat([cipher.update(text, 'utf8'), cipher.final()]);
  return Buffer.concat([nonce, cipher.getAuthTag(), sealed]).toString('base64');
}

/** Undefined where it was sealed by another key, or is not as it was sealed. */
export function unseal(sealed: string): string | undefined {
  const bytes = Buffer.from(sealed, 'base64');
  const own = key();
  try {
    const decipher = createDecipheriv('aes-256-gcm', own, bytes.subarray(0, nonceBytes));
    decipher.setAuthTag(bytes.subarray(nonceBytes, nonceBytes + tagBytes));
    return decipher.update(bytes.subarray(nonceBytes + tagBytes), undefined, 'utf8') + decipher.final('utf8');
  } catch {
    return undefined;
  }
}
