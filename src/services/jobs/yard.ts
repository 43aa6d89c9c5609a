import { readable, type DevicesAtHand, type YardLine } from '../../core/visit/view';
import { findingsThatHold } from '../../core/assessment';
import { titleOf, toRead } from '../../core/finding';
import { asJudged } from '../../core/gauge';
import type { Experience } from '../../core/diagnosis';
import { allOf, latest, type Job } from '../../core/job';
import { toJobFile } from '../../core/job/record';
import { proofOf } from '../../core/proof';
import { unnamedVehicle } from '../../core/job/words';
import { nextMove } from '../../core/visit';
import { plateOf, profileOf } from '../../core/visit/notes';
import { inTransaction, type Tx } from '../../data/database';
import { loadGauges } from '../../data/gauges';
import * as jobs from '../../data/jobs';
import { loadShop } from '../../data/shop';
import * as vehicles from '../../data/vehicles';
import { LRUCache } from 'lru-cache';
import { experienceBefore } from '../confirmations';
import { atHand, devicesNow } from '../devices';
import { judgedOnce } from '../judging';

/** Handed-over cars stay in sight of the Yard this long. */
const yardHours = 7 * 24;

/** Lines worked out lately, by all they rest on. */
const lines = new LRUCache<string, YardLine>({ max: 2000 });

const nameOf = ({ id, revision, surroundings, learned }: jobs.YardRow): string => {
  const { tool, lead, practice } = devicesNow();
  return [id, revision, surroundings, learned, tool, lead, practice].join();
};

/** Today's vehicles, the newest first: one query, and one brief verdict for each that changed. */
export async function yard(now = new Date()): Promise<YardLine[]> {
  const since = new Date(now.getTime() - yardHours * 3_600_000);
  const rows = await jobs.loadYard(since);
  const unknown = rows.filter((row) => !lines.has(nameOf(row)));
  const changed = unknown.length > 0 ? await inTransaction((tx) => factsOf(tx, unknown)) : [];
  const fresh = new Map(
    await Promise.all(changed.map(async (facts) => [facts.row.id, await lineOf(facts)] as const)),
  );
  return rows.flatMap((row) => fresh.get(row.id) ?? lines.get(nameOf(row)) ?? []);
}

type Facts =
  | { row: jobs.YardRow; unreadable: string }
  | { row: jobs.YardRow; job: Job; devices: DevicesAtHand; experience: Experience | undefined };

/** What the lines of these jobs are worked out from. */
async function factsOf(tx: Tx, rows: readonly jobs.YardRow[]): Promise<Facts[]> {
  const stored = new Map(
    (
      await jobs.loadJobs(
        tx,
        rows.map(({ id }) => id),
      )
    ).map((job) => [job.row.id, job]),
  );
  const profiles = new Map((await vehicles.listProfiles(tx)).map((profile) => [profile.name, profile]));
  const register = await loadGauges(tx);
  const experienceAt = await experienceBefore(tx);
  const shop = await loadShop(tx);
  return rows.flatMap((row): Facts[] => {
    const record = stored.get(row.id)?.record;
    if (!record) return [];
    if (record instanceof jobs.Unreadable) return [{ row, unreadable: record.what }];
    const receiver = profiles.get(profileOf(record.header) ?? '')?.receiver ?? undefined;
    const job = asJudged(toJobFile(record), register);
    const devices = atHand(job, receiver, shop);
    return [{ row, job, devices, experience: experienceAt(new Date(row.openedAt)) }];
  });
}

async function lineOf(facts: Facts): Promise<YardLine> {
  if ('unreadable' in facts) return unreadableLine(facts.row, facts.unreadable);
  const { row, job, devices, experience } = facts;
  const name = nameOf(row);
  const assessment = await judgedOnce(name, 'verdict', () => Promise.resolve({ job, experience }));
  const [top] = toRead(findingsThatHold(assessment));
  const line: YardLine = {
    ...visitOf(row),
    label: job.vehicle.label ?? unnamedVehicle,
    plate: plateOf(job),
    lamp: latest(allOf(job, 'lamp'))?.seen.state ?? 'not-seen',
    headline: top ? titleOf(top) : '',
    proved: proofOf(job).proved,
    move: nextMove(job, {
      assessment,
      handedOver: row.state !== 'open',
      ...readable(devices),
    }),
  };
  lines.set(name, line);
  return line;
}

/** Nothing follows from half of what was seen. */
const unreadableLine = (row: jobs.YardRow, what: string): YardLine => ({
  ...visitOf(row),
  label: unnamedVehicle,
  plate: '',
  lamp: 'not-seen',
  headline: '',
  proved: false,
  move: { kind: 'done' },
  unreadable: what,
});

const visitOf = (row: jobs.YardRow) => ({
  id: row.id,
  number: row.number,
  state: row.state,
  openedAt: new Date(row.openedAt).toISOString(),
  openedBy: row.openedBy,
  handedOverAt: row.handedOverAt ? new Date(row.handedOverAt).toISOString() : null,
});
