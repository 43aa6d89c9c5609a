import { createHash, randomBytes } from 'node:crypto';
import { v7 as newId } from 'uuid';
import {
  codeTooLate,
  lastManager,
  notAllowed,
  notPaired,
  notYourself,
  personNameTaken,
  tooManyAttempts,
  secondFactorFirst,
  unknownPerson,
  wrongCode,
  wrongNameOrPassphrase,
  wrongNameOrPin,
} from '../contract/refusals';
import { success, type Result } from '../core/result';
import type { UnitChoice } from '../core/measure/units';
import type { ShopSettings } from '../core/records/shop';
import { rights, type Person, type Right, type Role } from '../core/visit/person';
import { brokenRule, inOwnShop, inTransaction, type Tx } from '../data/database';
import { peopleChanged } from '../data/notifications';
import { loadShop, settingsFrom } from '../data/shop';
import { notationHere } from './notation';
import * as technicians from '../data/technicians';
import { useDevices } from './devices';
import { log } from './log';
import { hashPassphrase, passphraseMatches, refusePassphrase } from './passphrase';
import { rememberedPerson } from './remembered-person';

export type { Person };

export const sessionHours = 12;

/** Units are the person's own, completed; or the shop's, where they chose none. */
function personOf(
  {
    id,
    name,
    role,
    units,
    secondFactor,
  }: Pick<technicians.TechnicianRow, 'id' | 'name' | 'role' | 'units' | 'secondFactor'>,
  shop: ShopSettings,
): Person {
  const lacks = role === 'manager' && shop.managersNeedSecondFactor ? 'needed' : 'none';
  return {
    id,
    name,
    role,
    units: notationHere(shop, units),
    ownUnits: units !== null,
    secondFactor: secondFactor === null ? lacks : 'on',
  };
}

export const hashToken = (token: string) => createHash('sha256').update(token).digest('hex');

/** Hashed once, so that an unknown name takes as long to refuse as a wrong passphrase. */
let decoy: Promise<string> | undefined;

/** Where an attempt to sign in comes from. */
export interface From {
  address: string;
  /** What the browser calls itself. */
  agent?: string;
  /** The cookie of a browser somebody has signed in with before. */
  known?: string | undefined;
}

/**
 * Attempts are counted per address; those of a browser this person signed in with apart, so that nobody on its network
 * locks it out.
 * Problems: `too-many-attempts` (message says how long to wait), `wrong-name-or-passphrase`.
 */
export async function signIn(
  name: string,
  passphrase: string,
  { address, agent = '', known }: From,
): Promise<Result<SignedIn>> {
  const mark = known === undefined ? undefined : hashToken(known);
  const isKnown = mark !== undefined && (await technicians.isKnownBrowser(mark, name));
  const from = { address, browser: isKnown ? mark : undefined };
  const wait = await technicians.countAttempt(name, from);
  if (wait !== undefined) {
    log.warn({ address }, 'sign-ins are made to wait');
    return tooManyAttempts(wait);
  }
  const found = await inTransaction((tx) => technicians.findByName(tx, name));
  decoy ??= hashPassphrase(newId());
  const matches = await passphraseMatches(passphrase, found?.passphraseHash ?? (await decoy));
  if (!found?.active || !matches) {
    // Not the name: a passphrase is typed into its field now and then.
    log.info({ address }, 'a sign-in was refused');
    return wrongNameOrPassphrase();
  }
  await technicians.forgiveAttempts(name, from);
  return success(
    found.secondFactor === null
      ? await startSession(found, { agent, deviceId: null })
      : await beginSession(found, { agent, deviceId: null }, codeMinutes * 60_000),
  );
}

/**
 * Knows this browser from now on for whoever signed in; what is given back is its cookie, and stored nowhere else. A mark
 * that was made here for others (a tablet that several use) stays; one that the browser chose itself counts for nothing.
 */
export function rememberBrowser(who: Person, known: string | undefined): Promise<string> {
  return inTransaction(async (tx) => {
    const isOurs = known !== undefined && (await technicians.isMark(tx, hashToken(known)));
    const token = isOurs ? known : randomBytes(32).toString('base64url');
    await technicians.rememberBrowser(tx, hashToken(token), who.id);
    return token;
  });
}

/** What a browser calls itself is kept to so many characters. */
const longestAgent = 200;

/** Who has signed in, or only shown the passphrase: then the session waits for the code. */
export interface SignedIn {
  token: string;
  person: Person;
  awaitsCode: boolean;
}

/** So long a code is waited for, min. */
export const codeMinutes = 5;

/** A session for somebody who has shown who they are. */
export async function startSession(
  found: technicians.TechnicianRow,
  where: { agent: string; deviceId: string | null },
): Promise<SignedIn> {
  const signedIn = await beginSession(found, where);
  log.info({ person: found.id, ...(where.deviceId && { device: where.deviceId }) }, 'signed in');
  return signedIn;
}

/** `waitsMs`: it is good for nothing until the code has come, and for so long. */
async function beginSession(
  found: technicians.TechnicianRow,
  where: { agent: string; deviceId: string | null },
  waitsMs?: number,
): Promise<SignedIn> {
  const token = randomBytes(32).toString('base64url');
  const expiresAt = new Date(Date.now() + (waitsMs ?? sessionHours * 3_600_000));
  const awaitsCode = waitsMs !== undefined;
  const shop = await inTransaction(async (tx) => {
    await technicians.dropExpiredSessions(tx);
    await technicians.createSession(tx, {
      tokenHash: hashToken(token),
      technicianId: found.id,
      expiresAt,
      agent: where.agent.slice(0, longestAgent),
      deviceId: where.deviceId,
      awaitsCode,
    });
    return loadShop(tx);
  });
  return { token, person: personOf(found, shop), awaitsCode };
}

/** The sentence to a refusal that a redirect could only name by its code. */
export const signInRefusal = (code: string | null): string | undefined =>
  code === 'wrong-pin'
    ? wrongNameOrPin().problem.message
    : [
        wrongNameOrPassphrase(),
        tooManyAttempts(technicians.attemptsWindowS),
        notPaired(),
        wrongCode(),
        codeTooLate(),
      ].find(({ problem }) => problem.code === code)?.problem.message;

/** Whose session this is. What is told is not to be changed: others have it too. */
export function personOfToken(token: string): Promise<Person | undefined> {
  const tokenHash = hashToken(token);
  return rememberedPerson(tokenHash, async () => {
    // Whichever shop is looked into: whoever looks belongs to this one.
    const found = await inOwnShop(() => technicians.findBySession(tokenHash));
    if (!found) return undefined;
    const shop = settingsFrom(found.settings);
    useDevices(shop.devices);
    return { person: personOf(found, shop), expiresAt: found.expiresAt };
  });
}

export async function signOut(token: string): Promise<void> {
  await inTransaction(async (tx) => {
    await technicians.endSession(tx, hashToken(token));
    peopleChanged(tx);
  });
}

export const hasAnybody = () => inTransaction(async (tx) => (await technicians.countTechnicians(tx)) > 0);

interface NewPerson {
  name: string;
  role: Role;
  passphrase: string;
}

/** Problems: `name-taken`, `passphrase-short`, `passphrase-common`. */
export async function addPerson(asked: NewPerson): Promise<Result<Person>> {
  const refusal = refusePassphrase(asked.passphrase, asked.name);
  if (refusal) return refusal;
  const passphraseHash = await hashPassphrase(asked.passphrase);
  return inTransaction(async (tx) => {
    if (await technicians.findByName(tx, asked.name)) {
      return personNameTaken(asked.name);
    }
    const { name, role } = asked;
    const row = { id: newId(), name, role, passphraseHash, units: null };
    return success(personOf(await technicians.createTechnician(tx, row), await loadShop(tx)));
  });
}

export const listPeople = () =>
  inTransaction(async (tx) => {
    const shop = await loadShop(tx);
    return (await technicians.listTechnicians(tx)).map((row) => ({
      ...personOf(row, shop),
      active: row.active,
    }));
  });

/**
 * Lets somebody in or keeps them out; out ends their sessions at once. One manager stays, whoever closes whom at the same
 * time: the database holds that. Problems: `unknown-person`, `not-yourself`, `last-manager`.
 */
export async function setActive(who: Person, id: string, active: boolean): Promise<Result<null>> {
  if (who.id === id) return notYourself();
  return lastManagerStays(async (tx) => {
    const row = await technicians.findTechnician(tx, id);
    if (!row) return unknownPerson();
    await row.update({ active }, { transaction: tx });
    if (!active) await technicians.endSessionsOf(tx, id);
    peopleChanged(tx);
    return success(null);
  });
}

async function lastManagerStays(work: (tx: Tx) => Promise<Result<null>>): Promise<Result<null>> {
  try {
    return await inTransaction(work);
  } catch (error) {
    if (brokenRule(error) === 'keep_a_manager') return lastManager();
    throw error;
  }
}

/** Null: as the shop from now on. */
export const chooseUnits = (who: Person, units: UnitChoice | null) =>
  inTransaction(async (tx) => {
    const row = await technicians.findTechnician(tx, who.id);
    await row?.update({ units }, { transaction: tx });
    peopleChanged(tx);
  });

const isFor = (right: Right, role: Role): boolean => (rights[right] as readonly Role[]).includes(role);

/** Without the second factor that is needed, a manager may do what technicians do. */
const lacksFactor = ({ secondFactor }: Person, right: Right): boolean =>
  secondFactor === 'needed' && !isFor(right, 'technician');

export function may(person: Person, right: Right): boolean {
  return isFor(right, person.role) && !lacksFactor(person, right);
}

/** Problems: `not-allowed`, `second-factor-first`. */
export function refuseUnless(person: Person, right: Right): Result<never> | undefined {
  if (may(person, right)) return undefined;
  if (isFor(right, person.role)) return secondFactorFirst();
  const who = rights[right].join(' or a ');
  return notAllowed(who, person.name, person.role);
}
