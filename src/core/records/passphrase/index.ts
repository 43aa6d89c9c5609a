/** The least a passphrase has, characters (OWASP ASVS 4.0.3, 2.1.1, from memory). */
export const shortestPassphrase = 12;
/** From here on it holds for long, where it is made of words (common practice). */
const goodLength = 18;

/** How it stands: too short; tried first by whoever guesses; it will do; good. */
type PassphraseStanding = 'short' | 'common' | 'fair' | 'good';

export function passphraseStanding(passphrase: string, name: string): PassphraseStanding {
  if (passphrase.length < shortestPassphrase) return 'short';
  const bare = bareOf(passphrase);
  const rest = bare.replaceAll(bareOf(name) || '-', '').replaceAll('hacienda', '');
  const isOneOverAndOver = /^(.{1,4})\1+.{0,3}$/.test(bare);
  if (common.has(bare) || isOneOverAndOver || rest.length < 4) return 'common';
  return passphrase.length >= goodLength ? 'good' : 'fair';
}

/** What is said of one while it is typed. */
export function passphraseWords(passphrase: string, name: string): string {
  const left = shortestPassphrase - passphrase.length;
  switch (passphraseStanding(passphrase, name)) {
    case 'short':
      return passphrase === ''
        ? `A few words, ${shortestPassphrase} characters or more`
        : `Too short: ${left} more ${left === 1 ? 'character' : 'characters'}`;
    case 'common':
      return 'Weak: anybody who guesses tries that first';
    case 'fair':
      return 'Fair: another word makes it good';
    case 'good':
      return 'Good';
  }
}

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

const bareOf = (text: string): string =>
  text
    .normalize('NFKC')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]/gu, '');
