import { col, fn, Op, QueryTypes, where } from 'sequelize';
import { RateLimiterPostgres, RateLimiterRes } from 'rate-limiter-flexible';
import { database, type Tx } from './database';
import { SessionRow, TechnicianRow, type Role } from './models';

export type { Role };
export { roles, TechnicianRow } from './models';

export const countTechnicians = (tx: Tx) => TechnicianRow.count({ transaction: tx });
export const listTechnicians = (tx: Tx) =>
  TechnicianRow.findAll({ order: [['name', 'ASC']], transaction: tx });
export const findTechnician = (tx: Tx, id: string) => TechnicianRow.findByPk(id, { transaction: tx });

export const findByName = (tx: Tx, name: string) =>
  TechnicianRow.findOne({ where: where(fn('lower', col('name')), name.toLowerCase()), transaction: tx });

export const createTechnician = (
  tx: Tx,
  values: Pick<TechnicianRow, 'id' | 'name' | 'role' | 'passphraseHash' | 'units'>,
) => TechnicianRow.create(values, { transaction: tx });

export const createSession = (
  tx: Tx,
  values: {
    tokenHash: string;
    technicianId: string;
    expiresAt: Date;
    agent: string;
    deviceId: string | null;
    awaitsCode: boolean;
  },
) => SessionRow.create(values, { transaction: tx });

/** The live ones, the latest first. */
export const sessionsOf = (tx: Tx, technicianId: string) =>
  SessionRow.findAll({
    where: { technicianId, awaitsCode: false, expiresAt: { [Op.gt]: new Date() } },
    order: [['startedAt', 'DESC']],
    transaction: tx,
  });

export const endSessionById = (tx: Tx, technicianId: string, id: string) =>
  SessionRow.destroy({ where: { technicianId, id }, transaction: tx });
export const endOtherSessionsOf = (tx: Tx, technicianId: string, tokenHash: string) =>
  SessionRow.destroy({ where: { technicianId, tokenHash: { [Op.ne]: tokenHash } }, transaction: tx });
/** All that were started with a PIN on a device. */
export const endSessionsOn = (tx: Tx, deviceId: string) =>
  SessionRow.destroy({ where: { deviceId }, transaction: tx });

/** A session nobody used for so long has ended, h: a tablet that was left lying is not somebody's for the rest of the day. */
const idleHours = 4;

/** Who is signed in and how long at most, and the shop's settings as they are stored. */
type SignedIn = Pick<TechnicianRow, 'id' | 'name' | 'role' | 'units' | 'secondFactor'> & {
  expiresAt: Date;
  settings: unknown;
};

/** The technician a live session belongs to, in one query. That it was used is written down once a minute at most. */
export async function findBySession(tokenHash: string): Promise<SignedIn | undefined> {
  const [found] = await database().query<SignedIn>(
    `WITH used AS (
       UPDATE sessions SET used_at = now()
       WHERE token_hash = $tokenHash AND used_at BETWEEN now() - $idle::interval AND now() - interval '1 minute'
     )
     SELECT technicians.id, name, role, units, second_factor AS "secondFactor", expires_at AS "expiresAt",
            (SELECT settings FROM shop) AS settings
     FROM sessions JOIN technicians ON technicians.id = technician_id
     WHERE token_hash = $tokenHash AND expires_at > now() AND used_at > now() - $idle::interval AND active
       AND NOT awaits_code`,
    { bind: { tokenHash, idle: `${idleHours} hours` }, type: QueryTypes.SELECT },
  );
  return found;
}

/** Whose code a session waits for: to be changed by whoever asks, one after the other. */
export async function lockAwaited(tx: Tx, tokenHash: string): Promise<TechnicianRow | undefined> {
  const session = await SessionRow.findOne({
    where: { tokenHash, awaitsCode: true, expiresAt: { [Op.gt]: new Date() } },
    transaction: tx,
  });
  if (!session) return undefined;
  const { technicianId: id } = session;
  const where = { id, active: true };
  return (await TechnicianRow.findOne({ where, lock: tx.LOCK.UPDATE, transaction: tx })) ?? undefined;
}

export const endSession = (tx: Tx, tokenHash: string) =>
  SessionRow.destroy({ where: { tokenHash }, transaction: tx });
export const endSessionsOf = (tx: Tx, technicianId: string) =>
  SessionRow.destroy({ where: { technicianId }, transaction: tx });
export const dropExpiredSessions = (tx: Tx) =>
  SessionRow.destroy({
    where: {
      [Op.or]: [
        { expiresAt: { [Op.lte]: new Date() } },
        { usedAt: { [Op.lte]: new Date(Date.now() - idleHours * 3_600_000) } },
      ],
    },
    transaction: tx,
  });

/** Attempts are forgotten after so long, s. */
export const attemptsWindowS = 10 * 60;

/** Sign-in attempts are counted per name from an address or a known browser, and per address over all names. */
const limits = {
  name: { points: 5, duration: attemptsWindowS },
  address: { points: 60, duration: attemptsWindowS },
  /** From one address, of all browsers there that are known. */
  known: { points: 60, duration: attemptsWindowS },
  /** Of one person on one device: a few now, and not many a day, so that ten thousand PINs take years. */
  pin: { points: 5, duration: attemptsWindowS },
  'pin-day': { points: 20, duration: 86_400 },
} as const;
type Limit = keyof typeof limits;
const limiters: Partial<Record<Limit, RateLimiterPostgres>> = {};

const limiter = (limit: Limit): RateLimiterPostgres =>
  (limiters[limit] ??= new RateLimiterPostgres({
    storeClient: database(),
    storeType: 'sequelize',
    tableName: 'sign_in_attempts',
    tableCreated: true,
    keyPrefix: limit,
    ...limits[limit],
  }));

/** Counts an attempt with a PIN; returns how many seconds to wait where there were too many. */
export async function countPinAttempt(name: string, deviceId: string): Promise<number | undefined> {
  const key = `${name.toLowerCase()} ${deviceId}`;
  try {
    await limiter('pin-day').consume(key);
    await limiter('pin').consume(key);
    return undefined;
  } catch (refusal) {
    if (refusal instanceof RateLimiterRes) return Math.ceil(refusal.msBeforeNext / 1000);
    throw refusal;
  }
}

export async function forgivePinAttempts(name: string, deviceId: string): Promise<void> {
  const key = `${name.toLowerCase()} ${deviceId}`;
  await limiter('pin').delete(key);
  await limiter('pin-day').reward(key);
}

/** Whether the mark a browser shows was made for somebody of this name. */
export async function isKnownBrowser(tokenHash: string, name: string): Promise<boolean> {
  const found = await database().query(
    `SELECT 1 FROM known_browsers JOIN technicians ON id = technician_id
     WHERE token_hash = $tokenHash AND lower(name) = lower($name)`,
    { bind: { tokenHash, name }, type: QueryTypes.SELECT },
  );
  return found.length > 0;
}

/** Whether the mark was made here, for anybody. */
export async function isMark(tx: Tx, tokenHash: string): Promise<boolean> {
  const found = await database().query('SELECT 1 FROM known_browsers WHERE token_hash = $tokenHash LIMIT 1', {
    bind: { tokenHash },
    type: QueryTypes.SELECT,
    transaction: tx,
  });
  return found.length > 0;
}

/** So many browsers are known of one person; the oldest are forgotten. */
const mostBrowsers = 20;

/** Knows a browser by its mark, for this person. */
export async function rememberBrowser(tx: Tx, tokenHash: string, technicianId: string): Promise<void> {
  await database().query(
    `INSERT INTO known_browsers (token_hash, technician_id) VALUES ($tokenHash, $technicianId)
     ON CONFLICT (token_hash, technician_id) DO UPDATE SET known_at = now()`,
    { bind: { tokenHash, technicianId }, transaction: tx },
  );
  await database().query(
    `DELETE FROM known_browsers WHERE technician_id = $technicianId AND token_hash NOT IN
       (SELECT token_hash FROM known_browsers WHERE technician_id = $technicianId
        ORDER BY known_at DESC LIMIT ${mostBrowsers})`,
    { bind: { technicianId }, transaction: tx },
  );
}

/**
 * Whose attempts are counted together: all from an address, and among them those from a browser that this person has
 * signed in with, apart: nobody beside it locks it out, and all such browsers of an address share a limit of their own.
 * Or all attempts at a further secret, by whoever has shown the first already, wherever from.
 */
export type Origin = { address: string; browser?: string | undefined } | { further: string };

/** Counts an attempt; returns how many seconds to wait where there were too many. */
export async function countAttempt(name: string, from: Origin): Promise<number | undefined> {
  try {
    if ('address' in from) await limiter(addressLimit(from)).consume(from.address);
    await limiter('name').consume(keyOf(name, from));
    return undefined;
  } catch (refusal) {
    if (refusal instanceof RateLimiterRes) return Math.ceil(refusal.msBeforeNext / 1000);
    throw refusal;
  }
}

/** A success takes back what its own attempts counted. */
export async function forgiveAttempts(name: string, from: Origin): Promise<void> {
  await limiter('name').delete(keyOf(name, from));
  if ('address' in from) await limiter(addressLimit(from)).reward(from.address);
}

const addressLimit = ({ browser }: { browser?: string | undefined }): Limit =>
  browser === undefined ? 'address' : 'known';

const keyOf = (name: string, from: Origin): string =>
  `${name.toLowerCase()} ${'further' in from ? from.further : (from.browser ?? from.address)}`;
