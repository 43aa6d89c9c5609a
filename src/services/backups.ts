import { setting } from '../settings';
import type { BackupState } from '../contract/health';
import { lastNight, type BackupNight } from '../data/backup-nights';
import { inOwnShop } from '../data/database';

/** A night is due again after a day; so much later it is overdue, h. */
const overdueHours = 26;

export function stateOf(night: BackupNight | undefined, { isAsked, nowMs, upS }: Surroundings): BackupState {
  if (!isAsked) return 'off';
  const hours = night ? (nowMs - night.at.getTime()) / 3_600_000 : Infinity;
  // Nothing is due of a time in which nobody was there to do it.
  if (Math.min(hours, upS / 3600) > overdueHours) return 'overdue';
  if (!night) return 'to-come';
  return night.failed === null ? 'good' : 'failed';
}

interface Surroundings {
  /** Whether the starter was asked to back up each night. */
  isAsked: boolean;
  nowMs: number;
  /** Since when the server runs, s. */
  upS: number;
}

const surroundings = (): Surroundings => ({
  isAsked: setting('HACIENDA_BACKUPS') !== undefined,
  nowMs: Date.now(),
  upS: process.uptime(),
});

export const backupState = async (): Promise<BackupState> =>
  stateOf(await inOwnShop(lastNight), surroundings());

/** What a manager has to know of it; undefined where nothing is amiss. */
export async function backupTrouble(): Promise<string | undefined> {
  const night = await inOwnShop(lastNight);
  const state = stateOf(night, surroundings());
  if (state === 'failed')
    return `Last night’s backup failed. ${night?.failed ?? ''} It is tried again next night; until then make one by hand: ./hacienda backup FILE`;
  if (state === 'overdue')
    return 'No nightly backup was made for more than a day. See whether the starter runs; until then make one by hand: ./hacienda backup FILE';
  return undefined;
}
