import type { Experience } from '../core/judgement/diagnosis';
import type { Instrument } from '../core/tire/gauge';
import type { Job } from '../core/job';
import type { ShopSettings } from '../core/records/shop';
import type { Receiver } from '../core/car/uds/receiver';
import { profileOf } from '../core/job/header';
import { inTransaction, type Tx } from '../data/database';
import { loadGauges } from '../data/gauges';
import { loadShop } from '../data/shop';
import * as vehicles from '../data/vehicles';
import { experienceBefore } from './confirmations';

/** What every job is judged by beside its own facts: it changes seldom, and is read once for each revision. */
export interface Surroundings {
  shop: ShopSettings;
  gauges: Instrument[];
  /** What the vehicle's profile knows of its receiver, so that a lead can talk to it. */
  receiverOf: (job: Pick<Job, 'vehicle'>) => Receiver | undefined;
  /** What the shop had seen when a job was opened. */
  experienceAt: (openedAt: Date) => Experience | undefined;
}

let known: { revision: string; surroundings: Surroundings } | undefined;

/** `revision`: as it came with a job. `tx`: where one is open. */
export async function surroundings(tx: Tx | undefined, revision: string): Promise<Surroundings> {
  if (known?.revision === revision) return known.surroundings;
  const read = await (tx ? readIn(tx) : inTransaction(readIn));
  known = { revision, surroundings: read };
  return read;
}

async function readIn(tx: Tx): Promise<Surroundings> {
  const profiles = new Map((await vehicles.listProfiles(tx)).map((profile) => [profile.name, profile]));
  return {
    shop: await loadShop(tx),
    gauges: await loadGauges(tx),
    receiverOf: (job) => profiles.get(profileOf(job) ?? '')?.receiver ?? undefined,
    experienceAt: await experienceBefore(tx),
  };
}
