import { randomBytes } from 'node:crypto';
import { Secret, TOTP } from 'otpauth';
import {
  codeTooLate,
  ownSecondFactor,
  secondFactorFirst,
  tooManyAttempts,
  unknownPerson,
  wrongCode,
} from '../contract/refusals';
import { success, type Result } from '../core/result';
import { inTransaction, type Tx } from '../data/database';
import { peopleChanged } from '../data/notifications';
import * as technicians from '../data/technicians';
import { log } from './log';
import { hashToken, startSession, type Person, type SignedIn } from './people';
import { provenAgain } from './pins';
import { seal, unseal } from './sealing';

/**
 * A second thing to show at signing in: a code of six digits that an app on the person's own phone makes anew every half
 * minute (RFC 6238, with SHA-1 as all such apps have it), or, where the phone is lost, one of the codes written down.
 */

const secretBytes = 20;
const periodS = 30;
/** A phone's clock may be so many steps off. */
const window = 1;
const recoveryCodes = 8;

const totp = (secret: string, label = '') =>
  new TOTP({ issuer: 'Hacienda', label, secret: Secret.fromBase32(secret), period: periodS, digits: 6 });

/** The step of time a code is good in; undefined: it is not this secret's, or of another time. */
export function stepOf(secret: string, code: string, nowMs: number): number | undefined {
  const off = totp(secret).validate({ token: code, timestamp: nowMs, window });
  return off === null ? undefined : Math.floor(nowMs / 1000 / periodS) + off;
}

/** A new secret, to be shown to the person once. Nothing is kept yet. Problems: `wrong-name-or-passphrase`, `too-many-attempts`. */
export async function newSecret(
  who: Person,
  passphrase: string,
): Promise<Result<{ secret: string; uri: string }>> {
  const proven = await provenAgain(who, passphrase);
  if (!proven.ok) return proven;
  const secret = new Secret({ size: secretBytes }).base32;
  return success({ secret, uri: totp(secret, who.name).toString() });
}

/**
 * Asks for a code at every sign-in from now on, once a first one shows that the app has the secret; all other sessions end.
 * Gives the codes to write down, which are told this once. Problems: `wrong-code`, and those of `newSecret`.
 */
export async function setSecondFactor(
  who: Person,
  asked: { passphrase: string; secret: string; code: string },
  token: string,
): Promise<Result<{ recovery: string[] }>> {
  const proven = await provenAgain(who, asked.passphrase);
  if (!proven.ok) return proven;
  const step = stepOf(asked.secret, asked.code, Date.now());
  if (step === undefined) return wrongCode();
  const recovery = Array.from({ length: recoveryCodes }, newRecoveryCode);
  await inTransaction(async (tx) => {
    const secondFactor = seal(asked.secret);
    const recoveryHashes = recovery.map((code) => hashToken(plain(code)));
    await proven.value.update(
      { secondFactor, secondFactorStep: String(step), recoveryHashes },
      { transaction: tx },
    );
    await technicians.endOtherSessionsOf(tx, who.id, hashToken(token));
    peopleChanged(tx);
  });
  log.info({ person: who.id }, 'a second factor was set');
  return success({ recovery });
}

/** Takes one's own away, after the passphrase was given again. Problems: those of `newSecret`. */
export async function dropSecondFactor(who: Person, passphrase: string): Promise<Result<null>> {
  const proven = await provenAgain(who, passphrase);
  return proven.ok ? takeAway(who.id, { endsSessions: false }) : proven;
}

/**
 * A manager takes somebody's away, whose phone and codes are lost; their sessions end. One's own wants the passphrase.
 * Problems: `unknown-person`, `not-yourself`.
 */
export const takeSecondFactorFrom = (who: Person, id: string): Promise<Result<null>> =>
  who.id === id ? Promise.resolve(ownSecondFactor()) : takeAway(id, { endsSessions: true });

function takeAway(id: string, { endsSessions }: { endsSessions: boolean }): Promise<Result<null>> {
  return inTransaction(async (tx) => {
    const row = await technicians.findTechnician(tx, id);
    if (!row) return unknownPerson();
    await row.update({ secondFactor: null, secondFactorStep: null, recoveryHashes: [] }, { transaction: tx });
    if (endsSessions) await technicians.endSessionsOf(tx, id);
    peopleChanged(tx);
    log.info({ person: id }, 'a second factor was taken away');
    return success(null);
  });
}

/**
 * Ends what a right passphrase began. Each code is good once; too many wrong ones make it wait. Problems: `code-too-late`,
 * `wrong-code`, `too-many-attempts`.
 */
export async function signInWithCode(
  token: string | undefined,
  code: string,
  agent: string,
): Promise<Result<SignedIn>> {
  const tokenHash = hashToken(token ?? '');
  const counted = { further: 'code' };
  const awaited = await inTransaction((tx) => technicians.lockAwaited(tx, tokenHash));
  if (!awaited) return codeTooLate();
  const wait = await technicians.countAttempt(awaited.name, counted);
  if (wait !== undefined) return tooManyAttempts(wait);
  const shown = await inTransaction(async (tx) => {
    const row = await technicians.lockAwaited(tx, tokenHash);
    if (!row) return codeTooLate();
    if (!(await useCode(tx, row, code))) {
      log.info({ person: row.id }, 'a code was refused');
      return wrongCode();
    }
    await technicians.endSession(tx, tokenHash);
    return success(row);
  });
  if (!shown.ok) return shown;
  await technicians.forgiveAttempts(shown.value.name, counted);
  return success(await startSession(shown.value, { agent, deviceId: null }));
}

/** Whether a code, of the app or written down, is good; then it is good no more. */
async function useCode(tx: Tx, row: technicians.TechnicianRow, code: string): Promise<boolean> {
  const typed = plain(code);
  const secret = row.secondFactor === null ? undefined : unseal(row.secondFactor);
  const step = secret === undefined ? undefined : stepOf(secret, typed, Date.now());
  if (step !== undefined) {
    if (row.secondFactorStep !== null && step <= Number(row.secondFactorStep)) return false;
    await row.update({ secondFactorStep: String(step) }, { transaction: tx });
    return true;
  }
  const hash = hashToken(typed);
  if (!row.recoveryHashes.includes(hash)) return false;
  const recoveryHashes = row.recoveryHashes.filter((other) => other !== hash);
  await row.update({ recoveryHashes }, { transaction: tx });
  return true;
}

/** 80 bits, in letters and digits that are not taken for one another (Crockford's base 32). */
function newRecoveryCode(): string {
  const digits = '0123456789abcdefghjkmnpqrstvwxyz';
  const text = [...randomBytes(16)].map((byte) => digits[byte % 32] ?? '').join('');
  return (text.match(/.{4}/g) ?? []).join('-');
}

/** Blanks and hyphens are for the eye. */
const plain = (code: string): string => code.replaceAll(/[\s-]/g, '').toLowerCase();

/** Whoever asks one of all managers shows one too. Problem: `second-factor-first`. */
export const refuseWithoutOwn = (who: Person): Result<never> | undefined =>
  who.secondFactor === 'on' ? undefined : secondFactorFirst();
