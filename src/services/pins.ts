import { randomBytes } from 'node:crypto';
import { v7 as newId } from 'uuid';
import {
  notPaired,
  pinUnfit,
  tooManyAttempts,
  unknownDevice,
  unknownPerson,
  unknownSession,
  wrongNameOrPin,
  wrongPassphrase,
} from '../contract/refusals';
import { success, type Result } from '../core/result';
import type { PairedDevice, SessionSummary } from '../core/visit/person';
import { inTransaction } from '../data/database';
import { peopleChanged } from '../data/notifications';
import * as paired from '../data/paired-devices';
import * as technicians from '../data/technicians';
import { hashPassphrase, passphraseMatches, refusePassphrase } from './passphrase';
import { hashToken, startSession, type Person, type SignedIn } from './people';

/** A PIN has so many digits: few enough for a glove, and good only on a device that was paired, a few tries at a time. */
const pinDigits = /^\d{4,8}$/;

/** Pairs this device; what is given back is its cookie, and stored nowhere else. */
export function pairDevice(name: string, who: Person): Promise<{ token: string; devices: PairedDevice[] }> {
  const token = randomBytes(32).toString('base64url');
  return inTransaction(async (tx) => {
    await paired.addPaired(tx, { id: newId(), tokenHash: hashToken(token), name, pairedBy: who.name });
    return { token, devices: (await paired.listPaired(tx)).map(summaryOf) };
  });
}

export const listPairedDevices = (): Promise<PairedDevice[]> =>
  inTransaction(async (tx) => (await paired.listPaired(tx)).map(summaryOf));

/** A device that is lost takes no PIN any more, and whoever was signed in on it is out. Problem: `unknown-device`. */
export function unpairDevice(id: string): Promise<Result<PairedDevice[]>> {
  return inTransaction(async (tx) => {
    const devices = await paired.listPaired(tx);
    const found = devices.find((device) => device.id === id);
    if (!found) return unknownDevice();
    await found.update({ unpairedAt: new Date() }, { transaction: tx });
    await technicians.endSessionsOn(tx, id);
    peopleChanged(tx);
    return success(devices.filter((device) => device !== found).map(summaryOf));
  });
}

const summaryOf = ({ id, name, pairedAt, pairedBy, lastSeenAt }: paired.PairedDeviceRow): PairedDevice => ({
  id,
  name,
  pairedAt: pairedAt.toISOString(),
  pairedBy,
  lastSeenAt: lastSeenAt?.toISOString() ?? null,
});

/** The names to tap on a paired device; none where it is not. */
export function namesForPin(deviceToken: string | undefined): Promise<string[]> {
  if (!deviceToken) return Promise.resolve([]);
  return inTransaction(async (tx) => {
    const device = await paired.findPaired(tx, hashToken(deviceToken));
    return device ? (await paired.withPin(tx)).map(({ name }) => name) : [];
  });
}

/** Problems: `not-paired`, `too-many-attempts`, `wrong-name-or-passphrase`. */
export async function signInWithPin(
  asked: { name: string; pin: string },
  deviceToken: string | undefined,
  agent: string,
): Promise<Result<SignedIn>> {
  const device = deviceToken && (await inTransaction((tx) => paired.findPaired(tx, hashToken(deviceToken))));
  if (!device) return notPaired();
  const wait = await technicians.countPinAttempt(asked.name, device.id);
  if (wait !== undefined) return tooManyAttempts(wait);
  const found = await inTransaction((tx) => technicians.findByName(tx, asked.name));
  const matches = found?.pinHash && (await passphraseMatches(asked.pin, found.pinHash));
  if (!found?.active || !matches) return wrongNameOrPin();
  await technicians.forgivePinAttempts(asked.name, device.id);
  await inTransaction((tx) => device.update({ lastSeenAt: new Date() }, { transaction: tx }));
  return success(await startSession(found, { agent, deviceId: device.id }));
}

/** Whoever is signed in shows once more who they are. Problems: `wrong-name-or-passphrase`, `too-many-attempts`. */
export async function provenAgain(
  who: Person,
  passphrase: string,
): Promise<Result<technicians.TechnicianRow>> {
  const row = await inTransaction((tx) => technicians.findTechnician(tx, who.id));
  if (!row) return unknownPerson();
  const from = { further: `secret ${row.id}` };
  const wait = await technicians.countAttempt(row.name, from);
  if (wait !== undefined) return tooManyAttempts(wait);
  if (!(await passphraseMatches(passphrase, row.passphraseHash))) return wrongPassphrase();
  await technicians.forgiveAttempts(row.name, from);
  return success(row);
}

/**
 * Changes one's own passphrase, or sets a PIN, after the passphrase was given again; all other sessions end. An empty PIN
 * takes it away. Problems: `wrong-name-or-passphrase`, `passphrase-short`, `pin-unfit`.
 */
export async function setSecret(
  who: Person,
  asked: { passphrase: string; next?: string; pin?: string },
  token: string,
): Promise<Result<null>> {
  const proven = await provenAgain(who, asked.passphrase);
  if (!proven.ok) return proven;
  const row = proven.value;
  const refusal = asked.next === undefined ? undefined : refusePassphrase(asked.next, row.name);
  if (refusal) return refusal;
  const { pin } = asked;
  if (pin !== undefined && pin !== '' && (!pinDigits.test(pin) || isEasy(pin))) return pinUnfit();
  const changes = {
    ...(asked.next !== undefined && { passphraseHash: await hashPassphrase(asked.next) }),
    ...(pin !== undefined && { pinHash: pin === '' ? null : await hashPassphrase(pin) }),
  };
  return inTransaction(async (tx) => {
    await row.update(changes, { transaction: tx });
    await technicians.endOtherSessionsOf(tx, who.id, hashToken(token));
    peopleChanged(tx);
    return success(null);
  });
}

/** One digit over and over, or a run up or down: tried first by anybody. */
const isEasy = (pin: string): boolean =>
  /^(\d)\1+$/.test(pin) || '01234567890'.includes(pin) || '09876543210'.includes(pin);

/** A manager gives somebody another passphrase; their PIN and all their sessions end. Problems: `unknown-person`, `passphrase-short`. */
export async function resetPassphrase(id: string, passphrase: string): Promise<Result<null>> {
  const passphraseHash = await hashPassphrase(passphrase);
  return inTransaction(async (tx) => {
    const row = await technicians.findTechnician(tx, id);
    if (!row) return unknownPerson();
    const refusal = refusePassphrase(passphrase, row.name);
    if (refusal) return refusal;
    await row.update({ passphraseHash, pinHash: null }, { transaction: tx });
    await technicians.endSessionsOf(tx, id);
    peopleChanged(tx);
    return success(null);
  });
}

/** Where somebody is signed in, the latest first. */
export const sessionsOf = (who: Person, token: string): Promise<SessionSummary[]> =>
  inTransaction(async (tx) =>
    (await technicians.sessionsOf(tx, who.id)).map(({ id, startedAt, expiresAt, agent, tokenHash }) => ({
      id,
      startedAt: startedAt.toISOString(),
      expiresAt: expiresAt.toISOString(),
      agent,
      here: tokenHash === hashToken(token),
    })),
  );

/** Ends one of one's own sessions. Problem: `unknown-session`. */
export function endOneSession(who: Person, id: string): Promise<Result<null>> {
  return inTransaction(async (tx) => {
    if ((await technicians.endSessionById(tx, who.id, id)) === 0) return unknownSession();
    peopleChanged(tx);
    return success(null);
  });
}
