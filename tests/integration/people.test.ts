import { v7 as newKey } from 'uuid';
import { describe, expect, it } from 'vitest';
import { hashPassphrase, passphraseMatches } from '../../src/services/passphrase';
import {
  addPerson,
  chooseUnits,
  listPeople,
  may,
  personOfToken,
  setActive,
  signIn,
  signOut,
} from '../../src/services/people';
import { person } from '../support/people';

const somebody = async (role: 'technician' | 'adviser' | 'manager' = 'technician') => {
  const name = `Somebody ${newKey()}`;
  const passphrase = 'a few plain words';
  const added = await addPerson({ name, role, passphrase });
  if (!added.ok) throw new Error(added.problem.message);
  return { ...added.value, passphrase };
};
const token = async (who: { name: string; passphrase: string }) => {
  const signedIn = await signIn(who.name, who.passphrase, { address: `test ${newKey()}` });
  if (!signedIn.ok) throw new Error(signedIn.problem.message);
  return signedIn.value.token;
};

describe('a passphrase', () => {
  it('matches itself and nothing else, and is never stored as it is', async () => {
    const stored = await hashPassphrase('seven lamps at dawn');
    expect(stored).toMatch(/^scrypt\$32768\$8\$1\$/);
    expect(stored).not.toContain('lamps');
    expect(await passphraseMatches('seven lamps at dawn', stored)).toBe(true);
    expect(await passphraseMatches('seven lamps at dusk', stored)).toBe(false);
    expect(await hashPassphrase('seven lamps at dawn')).not.toBe(stored);
  });

  it('that guessers try first is refused, or one that is hardly more than a name', async () => {
    const name = `Ada ${newKey().slice(-4)}`;
    for (const passphrase of [
      'Password 1234',
      'aaaaaaaaaaaaa',
      'abcabcabcabcabc',
      `${name} ${name}`,
      'hacienda hacienda',
    ])
      expect(await addPerson({ name, role: 'adviser', passphrase }), passphrase).toMatchObject({
        problem: { code: 'passphrase-common' },
      });
  });

  it('too short is refused', async () => {
    expect(await addPerson({ name: newKey(), role: 'adviser', passphrase: 'short' })).toMatchObject({
      ok: false,
      problem: { code: 'passphrase-short' },
    });
  });
});

describe('an account', () => {
  it('has a name of its own, whatever the case', async () => {
    const { name } = await somebody();
    expect(
      await addPerson({ name: name.toUpperCase(), role: 'adviser', passphrase: 'a few plain words' }),
    ).toMatchObject({
      ok: false,
      problem: { code: 'name-taken' },
    });
  });

  it('signs in under any case of its name, and out again', async () => {
    const who = await somebody();
    const mine = await token({ ...who, name: who.name.toLowerCase() });
    expect(await personOfToken(mine)).toMatchObject({ id: who.id, role: 'technician' });
    await signOut(mine);
    expect(await personOfToken(mine)).toBeUndefined();
  });

  it('closed is out at once, and cannot come back until it is opened', async () => {
    const who = await somebody();
    const manager = person('manager');
    const mine = await token(who);
    await setActive(manager, who.id, false);
    expect(await personOfToken(mine)).toBeUndefined();
    expect(await signIn(who.name, who.passphrase, { address: 'elsewhere' })).toMatchObject({
      ok: false,
      problem: { code: 'wrong-name-or-passphrase' },
    });
    await setActive(manager, who.id, true);
    expect(await personOfToken(await token(who))).toMatchObject({ id: who.id });
  });

  it('of a manager cannot close itself', async () => {
    const manager = await somebody('manager');
    expect(await setActive(manager, manager.id, false)).toMatchObject({
      ok: false,
      problem: { code: 'not-yourself' },
    });
  });

  it('keeps its own units', async () => {
    const who = await somebody();
    await chooseUnits(who, { pressure: 'psi', temperature: '°F', distance: 'mi', height: 'ft' });
    expect((await listPeople()).find(({ id }) => id === who.id)?.units).toMatchObject({
      pressure: 'psi',
      temperature: '°F',
      distance: 'mi',
      height: 'ft',
    });
  });
});

describe('a role', () => {
  it.each([
    ['technician', true, true, false],
    ['adviser', false, false, false],
    ['manager', true, true, true],
  ] as const)('%s: records %s, changes a car %s, manages people %s', (role, records, changes, manages) => {
    expect([
      may(person(role), 'record-readings'),
      may(person(role), 'change-a-car'),
      may(person(role), 'manage-people'),
    ]).toEqual([records, changes, manages]);
  });
});
