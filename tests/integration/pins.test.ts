import { v7 as newKey } from 'uuid';
import { describe, expect, it } from 'vitest';
import { addPerson, personOfToken, signIn, type Person } from '../../src/services/people';
import {
  endOneSession,
  listPairedDevices,
  namesForPin,
  pairDevice,
  resetPassphrase,
  sessionsOf,
  setSecret,
  signInWithPin,
  unpairDevice,
} from '../../src/services/pins';
import { must } from '../support/must';
import { person } from '../support/people';

const passphrase = 'nine rims in a row';
const manager = person('manager');
/** Somebody with a session of their own. */
async function somebody(): Promise<{ who: Person; token: string }> {
  const name = `P ${newKey()}`;
  must(await addPerson({ name, role: 'technician', passphrase }));
  const { token, person: who } = must(await signIn(name, passphrase, { address: newKey() }));
  return { who, token };
}

describe('a PIN', () => {
  it('signs in on a paired device, by the name that stands there, and nowhere else', async () => {
    const { who, token } = await somebody();
    must(await setSecret(who, { passphrase, pin: '4829' }, token));
    const tablet = (await pairDevice('Tablet, bay 2', manager)).token;
    expect(await namesForPin(tablet)).toContain(who.name);
    expect(await namesForPin(undefined)).toEqual([]);
    const asked = { name: who.name, pin: '4829' };
    const signedIn = must(await signInWithPin(asked, tablet, 'Test'));
    expect((await personOfToken(signedIn.token))?.id).toBe(who.id);
    for (const other of [undefined, newKey()])
      expect(await signInWithPin(asked, other, '')).toMatchObject({ problem: { code: 'not-paired' } });
  });

  it('that is wrong is refused, and after a few tries nothing is tried for a while, not even the right one', async () => {
    const { who, token } = await somebody();
    must(await setSecret(who, { passphrase, pin: '4829' }, token));
    const tablet = (await pairDevice('Tablet', manager)).token;
    for (let n = 0; n < 5; n += 1)
      expect(await signInWithPin({ name: who.name, pin: '0471' }, tablet, '')).toMatchObject({
        problem: { code: 'wrong-name-or-passphrase' },
      });
    expect(await signInWithPin({ name: who.name, pin: '4829' }, tablet, '')).toMatchObject({
      problem: { code: 'too-many-attempts' },
    });
    // The passphrase still lets them in, and another device is no worse off.
    expect((await signIn(who.name, passphrase, { address: newKey() })).ok).toBe(true);
    const other = (await pairDevice('Other', manager)).token;
    expect((await signInWithPin({ name: who.name, pin: '4829' }, other, '')).ok).toBe(true);
  });

  it('is no run of one digit nor of digits in a row, and takes the passphrase to be set', async () => {
    const { who, token } = await somebody();
    for (const pin of ['1111', '1234', '8765', '12', '123456789', 'abcd'])
      expect(await setSecret(who, { passphrase, pin }, token), pin).toMatchObject({
        problem: { code: 'pin-unfit' },
      });
    expect(await setSecret(who, { passphrase: 'another one', pin: '4829' }, token)).toMatchObject({
      problem: { code: 'wrong-name-or-passphrase' },
    });
  });

  it('goes with the device: unpaired, it takes none, and who was signed in there is out', async () => {
    const { who, token } = await somebody();
    must(await setSecret(who, { passphrase, pin: '4829' }, token));
    const name = `Lost ${newKey()}`;
    const paired = await pairDevice(name, manager);
    const there = must(await signInWithPin({ name: who.name, pin: '4829' }, paired.token, ''));
    const id = (await listPairedDevices()).find((device) => device.name === name)?.id ?? '';
    must(await unpairDevice(id));
    expect(await personOfToken(there.token)).toBeUndefined();
    expect(await namesForPin(paired.token)).toEqual([]);
    expect(await unpairDevice(id)).toMatchObject({ problem: { code: 'unknown-device' } });
  });
});

describe('one’s passphrase', () => {
  it('is changed with the old one, and ends every other session', async () => {
    const { who, token } = await somebody();
    const elsewhere = must(await signIn(who.name, passphrase, { address: newKey() }));
    expect(await setSecret(who, { passphrase, next: 'short' }, token)).toMatchObject({
      problem: { code: 'passphrase-short' },
    });
    must(await setSecret(who, { passphrase, next: 'ten lugs and a cap' }, token));
    expect(await personOfToken(elsewhere.token)).toBeUndefined();
    expect((await personOfToken(token))?.id).toBe(who.id);
    expect((await signIn(who.name, passphrase, { address: newKey() })).ok).toBe(false);
    expect((await signIn(who.name, 'ten lugs and a cap', { address: newKey() })).ok).toBe(true);
  });

  it('is reset by a manager: all sessions and the PIN end', async () => {
    const { who, token } = await somebody();
    must(await setSecret(who, { passphrase, pin: '4829' }, token));
    must(await resetPassphrase(who.id, 'one more for the road'));
    expect(await personOfToken(token)).toBeUndefined();
    const tablet = (await pairDevice('Tablet', manager)).token;
    expect(await namesForPin(tablet)).not.toContain(who.name);
    expect(await resetPassphrase(newKey(), 'one more for the road')).toMatchObject({
      problem: { code: 'unknown-person' },
    });
  });
});

describe('sessions', () => {
  it('are listed, and ended one by one, only by whose they are', async () => {
    const { who, token } = await somebody();
    const elsewhere = must(
      await signIn(who.name, passphrase, { address: newKey(), agent: 'Mozilla (Android 14)' }),
    );
    const list = await sessionsOf(who, token);
    expect(list).toHaveLength(2);
    expect(list.filter(({ here }) => here)).toHaveLength(1);
    const other = list.find(({ here }) => !here);
    expect(other?.agent).toContain('Android');
    const { who: stranger } = await somebody();
    expect(await endOneSession(stranger, other?.id ?? '')).toMatchObject({
      problem: { code: 'unknown-session' },
    });
    must(await endOneSession(who, other?.id ?? ''));
    expect(await personOfToken(elsewhere.token)).toBeUndefined();
  });
});
