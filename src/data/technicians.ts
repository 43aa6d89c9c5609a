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
  },
) => SessionRow.create(values, { transaction: tx });

/** The live ones, the latest first. */
export const sessionsOf = (tx: Tx, technicianId: string) =>
  SessionRow.findAll({
    where: { technicianId, expiresAt: { [Op.gt]: new Date() } },
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

/** The technician a live session belongs to, and the shop's settings as they are stored: asked of at every request, so in one query. */
export async function findBySession(
  tokenHash: string,
): Promise<(Pick<TechnicianRow, 'id' | 'name' | 'role' | 'units'> & { settings: unknown }) | undefined> {
  const [found] = await database().query<
    Pick<TechnicianRow, 'id' | 'name' | 'role' | 'units'> & { settings: unknown }
  >(
    `SELECT technicians.id, name, role, units, (SELECT settings FROM shop) AS settings
     FROM sessions JOIN technicians ON technicians.id = technician_id
     WHERE token_hash = $tokenHash AND expires_at > now() AND active`,
    { bind: { tokenHash }, type: QueryTypes.SELECT },
  );
  return found;
}

export const endSession = (tx: Tx, tokenHash: string) =>
  SessionRow.destroy({ where: { tokenHash }, transaction: tx });
export const endSessionsOf = (tx: Tx, technicianId: string) =>
  SessionRow.destroy({ where: { technicianId }, transaction: tx });
export const dropExpiredSessions = (tx: Tx) =>
  SessionRow.destroy({ where: { expiresAt: { [Op.lte]: new Date() } }, transaction: tx });

/** Attempts are forgotten after so long, s. */
export const attemptsWindowS = 10 * 60;

/** Sign-in attempts are counted per name from an address, and per address over all names. */
const limits = {
  name: { points: 5, duration: attemptsWindowS },
  address: { points: 60, duration: attemptsWindowS },
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

/** Counts an attempt; returns how many seconds to wait where there were too many. */
export async function countAttempt(name: string, address: string): Promise<number | undefined> {
  try {
    await limiter('address').consume(address);
    await limiter('name').consume(`${name.toLowerCase()} ${address}`);
    return undefined;
  } catch (refusal) {
    if (refusal instanceof RateLimiterRes) return Math.ceil(refusal.msBeforeNext / 1000);
    throw refusal;
  }
}

/** A success takes back what its own attempts counted. */
export async function forgiveAttempts(name: string, address: string): Promise<void> {
  await limiter('name').delete(`${name.toLowerCase()} ${address}`);
  await limiter('address').reward(address);
}
