import { randomBytes, scrypt, timingSafeEqual, type ScryptOptions } from 'node:crypto';
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

/** The least and the most a passphrase has, characters (OWASP ASVS 4.0.3, 2.1.1 and 2.1.2, from memory). */
export const shortestPassphrase = 12;

/**
 * Those long enough that stand high in published lists of what people take (from memory), in lower case and without what
 * is not a letter or digit.
 */
const common = new Set([
  ...['123456789012', '1234567890123', '1234567890ab', 'qwertyuiop12', 'qwertyuiop123', 'qwertyuiopasdf'],
  ...['1q2w3e4r5t6y', '1qaz2wsx3edc', 'zaq12wsxcde3', 'qazwsxedcrfv', 'asdfghjklzxc', 'abcdefghijkl'],
  ...['password1234', 'password12345', 'passwordpassword', 'mypassword123', 'password123456', 'passw0rd1234'],
  ...['administrator', 'administrator1', 'iloveyou1234', 'iloveyouforever', 'letmeinletmein', 'welcome12345'],
  ...['changemechangeme', 'correcthorsebatterystaple', 'unbelievable', 'marlboro1234', 'michaeljordan'],
]);

/** Problems: `passphrase-short`; `passphrase-common` for what guessers try first, or hardly more than the name. */
export function refusePassphrase(passphrase: string, name: string): Result<never> | undefined {
  if (passphrase.length < shortestPassphrase) return passphraseShort(shortestPassphrase);
  const bare = bareOf(passphrase);
  const rest = bare.replaceAll(bareOf(name) || '-', '').replaceAll('hacienda', '');
  const isOneOverAndOver = /^(.{1,4})\1+.{0,3}$/.test(bare);
  return common.has(bare) || isOneOverAndOver || rest.length < 4 ? passphraseCommon() : undefined;
}

const bareOf = (text: string): string =>
  text
    .normalize('NFKC')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]/gu, '');
