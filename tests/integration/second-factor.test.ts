import { Secret, TOTP } from 'otpauth';
import { v7 as newKey } from 'uuid';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { usualSettings } from '../../src/core/records/shop';
import { inTransaction } from '../../src/data/database';
import { saveShop } from '../../src/data/shop';
import * as technicians from '../../src/data/technicians';
import { addPerson, may, personOfToken, refuseUnless, signIn, type Person } from '../../src/services/people';
import { sessionsOf } from '../../src/services/pins';
import { seal, unseal } from '../../src/services/sealing';
import {
  dropSecondFactor,
  newSecret,
  setSecondFactor,
  signInWithCode,
  stepOf,
  takeSecondFactorFrom,
} from '../../src/services/second-factor';
import { setShop } from '../../src/services/shop';
import { must } from '../support/must';
import { person } from '../support/people';

// In the middle of a step: none ends while a code is on its way.
beforeEach(() => {
  const now = (Math.floor(Date.now() / 30_000) + 0.5) * 30_000;
  vi.useFakeTimers({ toFake: ['Date'], now });
});
afterEach(() => {
  vi.useRealTimers();
});

const passphrase = 'nine rims in a row';

interface Somebody {
  who: Person;
  token: string;
  secret: string;
  recovery: string[];
}

async function newPerson(role: 'technician' | 'manager' = 'technician') {
  const name = `S ${newKey()}`;
  must(await addPerson({ name, role, passphrase }));
  const { token, person: who } = must(await signIn(name, passphrase, { address: newKey() }));
  return { who, token };
}

/** What the app on the phone shows, `steps` of half a minute from now. */
const shown = (secret: string, steps = 0): string =>
  new TOTP({ secret: Secret.fromBase32(secret) }).generate({ timestamp: Date.now() + steps * 30_000 });

async function withFactor(role: 'technician' | 'manager' = 'technician'): Promise<Somebody> {
  const { who, token } = await newPerson(role);
  const { secret } = must(await newSecret(who, passphrase));
  // Of the step before: the one of now is still good.
  const { recovery } = must(
    await setSecondFactor(who, { passphrase, secret, code: shown(secret, -1) }, token),
  );
  return { who, token, secret, recovery };
}

const begin = async ({ who }: { who: Person }) =>
  must(await signIn(who.name, passphrase, { address: newKey() }));
const codeOf = (answer: Awaited<ReturnType<typeof signInWithCode>>) =>
  answer.ok ? 'signed in' : answer.problem.code;

describe('codes', () => {
  // RFC 6238, appendix B: SHA-1, the secret in ASCII; the last six of its eight digits.
  const secret = Secret.fromUTF8('12345678901234567890').base32;
  it.each([
    [59, '287082'],
    [1_111_111_109, '081804'],
    [1_111_111_111, '050471'],
    [1_234_567_890, '005924'],
    [2_000_000_000, '279037'],
    [20_000_000_000, '353130'],
  ])('are those of the standard at %d s: %s', (seconds, code) => {
    expect(stepOf(secret, code, seconds * 1000)).toBe(Math.floor(seconds / 30));
    expect(stepOf(secret, code, (seconds + 30) * 1000)).toBe(Math.floor(seconds / 30));
    expect(stepOf(secret, code, (seconds + 90) * 1000)).toBeUndefined();
  });
});

describe('a second factor', () => {
  it('is asked for after the passphrase, which alone opens nothing', async () => {
    const somebody = await withFactor();
    const begun = await begin(somebody);
    expect(begun.awaitsCode).toBe(true);
    expect(await personOfToken(begun.token)).toBeUndefined();
    expect((await sessionsOf(somebody.who, '')).length).toBe(1);
    const { token } = must(await signInWithCode(begun.token, shown(somebody.secret), 'Test'));
    expect(await personOfToken(token)).toMatchObject({ id: somebody.who.id, secondFactor: 'on' });
    // What was begun is done with.
    expect(codeOf(await signInWithCode(begun.token, shown(somebody.secret, 1), ''))).toBe('code-too-late');
  });

  it('ends all other sessions as it is set, and is set only with the passphrase and a code of its secret', async () => {
    const { who, token } = await newPerson();
    const elsewhere = await begin({ who });
    expect(await newSecret(who, 'another one')).toMatchObject({
      problem: { code: 'wrong-name-or-passphrase' },
    });
    const { secret, uri } = must(await newSecret(who, passphrase));
    expect(uri).toContain(`secret=${secret}`);
    const asked = { passphrase, secret, code: shown(secret, 4) };
    expect(await setSecondFactor(who, asked, token)).toMatchObject({ problem: { code: 'wrong-code' } });
    expect((await begin({ who })).awaitsCode).toBe(false);
    must(await setSecondFactor(who, { ...asked, code: shown(secret) }, token));
    expect(await personOfToken(elsewhere.token)).toBeUndefined();
    expect(await personOfToken(token)).toMatchObject({ secondFactor: 'on' });
  });

  it('takes each code once: one that was looked at over a shoulder is worth nothing', async () => {
    const somebody = await withFactor();
    const code = shown(somebody.secret);
    expect(codeOf(await signInWithCode((await begin(somebody)).token, code, ''))).toBe('signed in');
    expect(codeOf(await signInWithCode((await begin(somebody)).token, code, ''))).toBe('wrong-code');
    // Of two who show it at the same time one gets in.
    const other = await withFactor();
    const [one, two] = [await begin(other), await begin(other)];
    const now = shown(other.secret);
    const both = await Promise.all([signInWithCode(one.token, now, ''), signInWithCode(two.token, now, '')]);
    expect(both.map(codeOf).sort()).toEqual(['signed in', 'wrong-code']);
  });

  it('lets in with a code that was written down, each once', async () => {
    const somebody = await withFactor();
    const [code = ''] = somebody.recovery;
    expect(new Set(somebody.recovery).size).toBe(8);
    expect(codeOf(await signInWithCode((await begin(somebody)).token, code.toUpperCase(), ''))).toBe(
      'signed in',
    );
    expect(codeOf(await signInWithCode((await begin(somebody)).token, code, ''))).toBe('wrong-code');
  });

  it('waits after a few wrong codes, for the right one too', async () => {
    const somebody = await withFactor();
    const { token } = await begin(somebody);
    for (let n = 0; n < 5; n += 1)
      expect(codeOf(await signInWithCode(token, '000000', ''))).toBe('wrong-code');
    expect(codeOf(await signInWithCode(token, shown(somebody.secret), ''))).toBe('too-many-attempts');
  });

  it('is taken away with the passphrase, or by a manager, which ends every session', async () => {
    const one = await withFactor();
    expect(await dropSecondFactor(one.who, 'another one')).toMatchObject({ ok: false });
    must(await dropSecondFactor(one.who, passphrase));
    expect((await begin(one)).awaitsCode).toBe(false);
    const two = await withFactor();
    expect(await takeSecondFactorFrom(two.who, two.who.id)).toMatchObject({
      problem: { code: 'not-yourself' },
    });
    must(await takeSecondFactorFrom(person('manager'), two.who.id));
    expect(await personOfToken(two.token)).toBeUndefined();
    expect((await begin(two)).awaitsCode).toBe(false);
    expect(await takeSecondFactorFrom(person('manager'), newKey())).toMatchObject({
      problem: { code: 'unknown-person' },
    });
  });

  it('is sealed: the database holds neither its secret nor the codes that were written down', async () => {
    const { who, secret, recovery } = await withFactor();
    const row = await inTransaction((tx) => technicians.findTechnician(tx, who.id));
    const stored = JSON.stringify(row);
    for (const told of [secret, ...recovery, ...recovery.map((code) => code.replaceAll('-', ''))])
      expect(stored).not.toContain(told);
    expect(unseal(row?.secondFactor ?? '')).toBe(secret);
  });

  it('is not opened by another key; what was written down lets in all the same', async () => {
    const somebody = await withFactor();
    const key = process.env.HACIENDA_KEY;
    process.env.HACIENDA_KEY = Buffer.alloc(32, 9).toString('base64');
    const begun = await begin(somebody);
    expect(codeOf(await signInWithCode(begun.token, shown(somebody.secret), ''))).toBe('wrong-code');
    expect(codeOf(await signInWithCode(begun.token, somebody.recovery[3] ?? '', ''))).toBe('signed in');
    process.env.HACIENDA_KEY = key;
    for (const broken of ['', 'AAAA', seal('one').slice(4), `${seal('one').slice(0, -4)}AAAA`])
      expect(unseal(broken)).toBeUndefined();
    expect(unseal(seal('Zürich'))).toBe('Zürich');
  });
});

describe('where managers need one', () => {
  it('a manager without one may do what technicians do, until it is set up; who asks it of all has one', async () => {
    const needed = { ...usualSettings, managersNeedSecondFactor: true };
    expect(await setShop(needed, person('manager'))).toMatchObject({
      problem: { code: 'second-factor-first' },
    });
    const own = await withFactor('manager');
    const withOwn = (await personOfToken(own.token)) ?? own.who;
    must(await setShop(needed, withOwn));
    try {
      const { who, token } = await newPerson('manager');
      expect(who.secondFactor).toBe('needed');
      expect(may(who, 'change-a-car')).toBe(true);
      expect(refuseUnless(who, 'manage-people')).toMatchObject({ problem: { code: 'second-factor-first' } });
      expect(refuseUnless(who, 'see-figures')).toBeDefined();
      const { secret } = must(await newSecret(who, passphrase));
      must(await setSecondFactor(who, { passphrase, secret, code: shown(secret) }, token));
      const then = await personOfToken(token);
      expect(then && may(then, 'manage-people')).toBe(true);
      expect((await newPerson()).who.secondFactor).toBe('none');
    } finally {
      await inTransaction((tx) => saveShop(tx, usualSettings, 'test'));
    }
  });
});
