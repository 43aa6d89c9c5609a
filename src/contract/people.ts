import { z } from 'zod';
import { notationSchema, unitChoiceSchema } from '../core/measure/units/schema';
import { roles, secondFactors, type PairedDevice, type SessionSummary } from '../core/visit/person';
import type { Contract } from './contract';

/** Who works here, and how they sign in. */

const credentialsSchema = z.object({
  name: z.string().trim().min(1).max(80),
  passphrase: z.string().min(1).max(128),
});

const role = z.enum(roles);
/** `awaitsCode`: only the passphrase was shown, the code of the second factor is to come. */
const signedIn = z.object({ name: z.string(), role, awaitsCode: z.boolean() });
/** Of six digits, or one that was written down. */
const code = z.string().trim().min(6).max(40);
export const pairedDeviceSchema = z.object({
  id: z.uuid(),
  name: z.string(),
  pairedAt: z.string(),
  pairedBy: z.string(),
  lastSeenAt: z.string().nullable(),
}) satisfies z.ZodType<PairedDevice>;
const sessionSchema = z.object({
  id: z.uuid(),
  startedAt: z.string(),
  expiresAt: z.string(),
  agent: z.string(),
  here: z.boolean(),
}) satisfies z.ZodType<SessionSummary>;
const done = z.object({ ok: z.literal(true) });

export const peopleContracts = {
  people: {
    at: ['GET', '/api/people'],
    right: 'manage-people',
    notes: 'nothing',
    summary: 'Who works here',
    answer: z.array(
      z.object({
        id: z.uuid(),
        name: z.string(),
        role,
        units: notationSchema,
        ownUnits: z.boolean(),
        secondFactor: z.enum(secondFactors),
        active: z.boolean(),
      }),
    ),
    problems: ['not-allowed'],
  },
  addPerson: {
    at: ['POST', '/api/people'],
    right: 'manage-people',
    notes: 'nothing',
    summary: 'Makes an account',
    body: z.object({ name: z.string().trim().min(1).max(80), role, passphrase: z.string().max(128) }),
    answer: z.object({ id: z.uuid() }),
    problems: ['not-allowed', 'name-taken', 'passphrase-short', 'passphrase-common'],
  },
  setActive: {
    at: ['PATCH', '/api/people/{id}'],
    right: 'manage-people',
    notes: 'nothing',
    of: 'person',
    summary: 'Lets somebody in, or keeps them out',
    body: z.object({ active: z.boolean() }),
    answer: z.null(),
    problems: ['not-allowed', 'unknown-person', 'not-yourself', 'last-manager'],
  },
  me: {
    at: ['PATCH', '/api/me'],
    right: 'signed-in',
    notes: 'nothing',
    summary: "One's own units and theme; null units: as the shop",
    body: z.object({
      units: unitChoiceSchema.nullable().optional(),
      theme: z.enum(['light', 'dark', 'system']).optional(),
    }),
    answer: done,
    problems: [],
  },
  signInWithPin: {
    at: ['POST', '/api/sign-in-pin'],
    right: 'anybody',
    notes: 'nothing',
    summary: 'Starts a session with a PIN, on a device that was paired',
    body: z.object({ name: z.string().trim().min(1).max(80), pin: z.string().min(1).max(12) }),
    answer: signedIn,
    problems: ['not-paired', 'wrong-name-or-passphrase', 'too-many-attempts'],
  },
  setSecret: {
    at: ['POST', '/api/me/secret'],
    right: 'signed-in',
    notes: 'nothing',
    summary: "Changes one's own passphrase, or sets a PIN; all other sessions of one's own end",
    body: z.object({
      passphrase: z.string().min(1).max(128),
      next: z.string().max(128).optional(),
      pin: z.string().max(12).optional(),
    }),
    answer: z.null(),
    problems: [
      'wrong-name-or-passphrase',
      'passphrase-short',
      'passphrase-common',
      'pin-unfit',
      'too-many-attempts',
      'unknown-person',
    ],
  },
  newSecondFactor: {
    at: ['POST', '/api/me/second-factor/new'],
    right: 'signed-in',
    notes: 'nothing',
    summary: 'A secret for an app that makes codes: to be confirmed with a first code',
    body: z.strictObject({ passphrase: z.string().min(1).max(128) }),
    answer: z.object({ secret: z.string(), uri: z.string() }),
    problems: ['wrong-name-or-passphrase', 'too-many-attempts', 'unknown-person'],
  },
  setSecondFactor: {
    at: ['POST', '/api/me/second-factor'],
    right: 'signed-in',
    notes: 'nothing',
    summary: "Asks for a code at one's own sign-ins from now on; gives the codes to write down",
    body: z.strictObject({
      passphrase: z.string().min(1).max(128),
      /** At least 128 bits. */
      secret: z.string().regex(/^[A-Z2-7]{26,64}$/),
      code,
    }),
    answer: z.object({ recovery: z.array(z.string()) }),
    problems: ['wrong-name-or-passphrase', 'too-many-attempts', 'unknown-person', 'wrong-code'],
  },
  dropSecondFactor: {
    at: ['POST', '/api/me/second-factor/drop'],
    right: 'signed-in',
    notes: 'nothing',
    summary: "Asks for no code at one's own sign-ins any more",
    body: z.strictObject({ passphrase: z.string().min(1).max(128) }),
    answer: z.null(),
    problems: ['wrong-name-or-passphrase', 'too-many-attempts', 'unknown-person'],
  },
  takeSecondFactor: {
    at: ['POST', '/api/people/{id}/second-factor'],
    right: 'manage-people',
    notes: 'nothing',
    of: 'person',
    summary: "Takes somebody's second factor away, whose phone is lost; their sessions end",
    body: z.strictObject({}),
    answer: z.null(),
    problems: ['not-allowed', 'second-factor-first', 'unknown-person', 'not-yourself'],
  },
  signInWithCode: {
    at: ['POST', '/api/sign-in-code'],
    inOwnShop: true,
    right: 'anybody',
    notes: 'nothing',
    summary: 'Ends a sign-in that waits for the code of a second factor',
    body: z.object({ code }),
    answer: signedIn,
    problems: ['wrong-code', 'code-too-late', 'too-many-attempts'],
  },
  sessions: {
    at: ['GET', '/api/me/sessions'],
    right: 'signed-in',
    notes: 'nothing',
    summary: 'Where one is signed in',
    answer: z.array(sessionSchema),
    problems: [],
  },
  endSession: {
    at: ['POST', '/api/me/sessions'],
    right: 'signed-in',
    notes: 'nothing',
    summary: "Ends one of one's own sessions",
    body: z.object({ session: z.uuid() }),
    answer: z.null(),
    problems: ['unknown-session'],
  },
  resetPassphrase: {
    at: ['POST', '/api/people/{id}/passphrase'],
    right: 'manage-people',
    notes: 'nothing',
    of: 'person',
    summary: 'Gives somebody another passphrase; their PIN and all their sessions end',
    body: z.object({ passphrase: z.string().max(128) }),
    answer: z.null(),
    problems: ['not-allowed', 'unknown-person', 'passphrase-short', 'passphrase-common'],
  },
  pairedDevices: {
    at: ['GET', '/api/paired-devices'],
    right: 'manage-people',
    notes: 'nothing',
    summary: 'Devices on which a PIN is enough to sign in',
    answer: z.array(pairedDeviceSchema),
    problems: ['not-allowed'],
  },
  pairDevice: {
    at: ['POST', '/api/paired-devices'],
    right: 'manage-people',
    notes: 'nothing',
    summary: 'Pairs the device that asks; its cookie is all there is to it',
    body: z.object({ name: z.string().trim().min(1).max(80) }),
    answer: z.array(pairedDeviceSchema),
    problems: ['not-allowed'],
  },
  unpairDevice: {
    at: ['POST', '/api/paired-devices/unpair'],
    right: 'manage-people',
    notes: 'nothing',
    summary: 'Takes a device out; whoever was signed in on it with a PIN is out too',
    body: z.object({ device: z.uuid() }),
    answer: z.array(pairedDeviceSchema),
    problems: ['not-allowed', 'unknown-device'],
  },
  signIn: {
    at: ['POST', '/api/sign-in'],
    inOwnShop: true,
    right: 'anybody',
    notes: 'nothing',
    summary: 'Starts a session; its cookie is all there is to it',
    body: credentialsSchema,
    answer: signedIn,
    problems: ['wrong-name-or-passphrase', 'too-many-attempts'],
  },
} as const satisfies Record<string, Contract>;
