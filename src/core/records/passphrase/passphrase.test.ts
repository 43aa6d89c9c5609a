import { describe, expect, it } from 'vitest';
import { passphraseStanding, passphraseWords } from '.';

describe('a passphrase while it is typed', () => {
  it('is told how it stands: too short, guessed first, fair, good', () => {
    const standing = (passphrase: string) => passphraseStanding(passphrase, 'Ada');
    expect(standing('twelve lett')).toBe('short');
    // High in published lists of what people take, from memory.
    for (const common of ['Password1234', '123456789012', 'qwertyuiop123'])
      expect(standing(common)).toBe('common');
    for (const lazy of ['aaaaaaaaaaaa', 'adaadaadaada', 'Ada Ada Ada Hacienda'])
      expect(standing(lazy)).toBe('common');
    expect(standing('cold at noon')).toBe('fair');
    expect(standing('cold tires at noon')).toBe('good');
  });

  it('is told so in words', () => {
    expect(passphraseWords('', 'Ada')).toBe('A few words, 12 characters or more');
    expect(passphraseWords('cold tires', 'Ada')).toBe('Too short: 2 more characters');
    expect(passphraseWords('cold at noo', 'Ada')).toBe('Too short: 1 more character');
    expect(passphraseWords('cold tires at noon', 'Ada')).toBe('Good');
  });
});
