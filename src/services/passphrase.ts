import { randomBytes, scrypt, timingSafeEqual, type ScryptOptions } from 'node:crypto';
import { passphraseStanding, shortestPassphrase } from '../core/records/passphrase';
import { passphraseCommon, passphraseShort } from '../contract/refusals';
import type { Result } from '../core/result';

/** Cost of a guess: 2^15 rounds of 8 blocks, about 32 MiB (common practice for interactive sign-in). */
const cost = { N: 2 ** 15, r: 8, p: 1 };
const keyLength = 32;

function derive(passphrase: string, salt: Buffer, options: ScryptOptions): Promise<Buffer> {
  return new Promise((resolve, reject) => {
    scrypt(
      passphrase.normalize('NFKC'),
      salt,
      keyLength,
      { ...options, maxmem: 128 * 2 ** 20 },
      (error, key) => (error ? reject(error) : resolve(key)),
    );
  });
}

/** `scrypt$N$r$p$salt$key`, so that the cost can be raised later and old hashes still hold. */
export async function hashPassphrase(passphrase: string): Promise<string> {
  const salt = randomBytes(16);
  const key = await derive(passphrase, salt, cost);
  return ['scrypt', cost.N, cost.r, cost.p, salt.toString('base64'), key.toString('base64')].join('$');
}

export async function passphraseMatches(passphrase: string, stored: string): Promise<boolean> {
  const [, n, r, p, salt = '', key = ''] = stored.split('$');
  const wanted = Buffer.from(key, 'base64');
  const found = await derive(passphrase, Buffer.from(salt, 'base64'), {
    N: Number(n),
    r: Number(r),
    p: Number(p),
  });
  return wanted.length === found.length && timingSafeEqual(wanted, found);
}

/** Problems: `passphrase-short`; `passphrase-common` for what guessers try first, or hardly more than the name. */
export function refusePassphrase(passphrase: string, name: string): Result<never> | undefined {
  switch (passphraseStanding(passphrase, name)) {
    case 'short':
      return passphraseShort(shortestPassphrase);
    case 'common':
      return passphraseCommon();
    case 'fair':
    case 'good':
      return undefined;
  }
}
