import { readable, type DevicesAtHand, type YardLine } from '../../contract/views';
import { titleOf } from '../../core/catalogue/finding';
import { asJudged } from '../../core/tire/gauge';
import type { Experience } from '../../core/judgement/diagnosis';
import { allOf, latest, type Job } from '../../core/job';
import { toJobFile } from '../../core/job/record';
import { headerSchema } from '../../core/job/schema';
import { proofOf } from '../../core/visit/proof';
import { standingOf } from '../../core/visit/proof/standing';
import { unnamedVehicle } from '../../core/job/words';
import { nextMove } from '../../core/visit';
import { shownOf } from '../../core/visit/shown';
import { plateOf } from '../../core/job/header';
import * as jobs from '../../data/jobs';
import { LRUCache } from 'lru-cache';
import pLimit from 'p-limit';
import { atHand, devicesNow } from '../devices';
import { judgedOnce } from '../judging';
import { log, traceOf } from '../log';
import { surroundings } from '../surroundings';
import { nameOf, speakingFor } from './view';

/** Handed-over cars stay in sight of the Yard this long. */
const yardHours = 7 * 24;

const lineNameOf = ({ id, revision, surroundings, learned }: jobs.YardRow): string => {
  const { tool, lead, practice } = devicesNow();
  return [id, revision, surroundings, learned, tool, lead, practice].join();
};

/** The line of each job as it was worked out last, with all it rests on. */
const last = new LRUCache<string, { name: string; line: YardLine; atMs: number }>({ max: 2000 });

/**
 * On a busy day, when more than so many changed at once, a line this old still stands: screens ask again within seconds.
 * Each job is then judged anew so often, ms, and nobody waits for it.
 */
const manyAtOnce = 8;
const standsMs = 10_000;
const judgedEveryMs = 5_000;

/** Today's vehicles, the newest first: one query, and one brief verdict for each that changed. */
export async function yard(now = new Date()): Promise<YardLine[]> {
  const since = new Date(now.getTime() - yardHours * 3_600_000);
  const rows = await jobs.loadYard(since);
  const changed = rows.filter((row) => last.get(row.id)?.name !== lineNameOf(row));
  const ageOf = (row: jobs.YardRow) => {
    const then = last.get(row.id);
    return then?.line.state === row.state ? now.getTime() - then.atMs : Infinity;
  };
  const isBusy = changed.length > manyAtOnce;
  const standing = isBusy ? changed.filter((row) => ageOf(row) < standsMs) : [];
  judgeBehind(standing.filter((row) => ageOf(row) > judgedEveryMs));
  const fresh = await judged(changed.filter((row) => !standing.includes(row)));
  return rows.flatMap((row) => fresh.get(row.id) ?? last.get(row.id)?.line ?? []);
}

async function judged(rows: readonly jobs.YardRow[]): Promise<Map<string, YardLine>> {
  const facts = rows.length > 0 ? await factsOf(rows) : [];
  return new Map(await Promise.all(facts.map(async (of) => [of.row.id, await lineOf(of)] as const)));
}

/** Those that are judged anew while nobody waits, one at a time: whoever waits goes first. */
const behind = new Set<string>();
const inTurn = pLimit(1);

function judgeBehind(rows: readonly jobs.YardRow[]): void {
  const due = rows.filter(({ id }) => !behind.has(id));
  for (const { id } of due) behind.add(id);
  for (const row of due)
    void inTurn(() => judged([row]))
      .catch((error: unknown) => log.warn(traceOf(error), 'a job was not judged anew'))
      .finally(() => behind.delete(row.id));
}

type Facts =
  | { row: jobs.YardRow; unreadable: string; header: jobs.JobFacts['header'] }
  | {
      row: jobs.YardRow;
      job: Job;
      devices: DevicesAtHand;
      experience: Experience | undefined;
      /** All that the verdict rests on. */
      name: string;
    };

/** What the lines of these jobs are worked out from. */
async function factsOf(rows: readonly jobs.YardRow[]): Promise<Facts[]> {
  const loaded = await jobs.loadReadable(
    undefined,
    rows.map(({ id }) => id),
  );
  const stored = new Map(loaded.map((job) => [job.row.id, job]));
  const { shop, gauges, receiverOf, experienceAt } = await surroundings(
    undefined,
    loaded[0]?.surroundings ?? '',
  );
  return rows.flatMap((row): Facts[] => {
    const found = stored.get(row.id);
    if (!found) return [];
    const { record } = found;
    if (record instanceof jobs.Unreadable)
      return [{ row, unreadable: record.what, header: found.row.header }];
    const read = toJobFile(record);
    const job = asJudged(read, gauges);
    const devices = atHand(job, receiverOf(job), shop);
    const experience = experienceAt(new Date(row.openedAt));
    const rests = {
      id: row.id,
      revision: Number(row.revision),
      gauges: speakingFor(read, gauges),
      experience,
    };
    return [{ row, job, devices, experience, name: nameOf(rests) }];
  });
}

async function lineOf(facts: Facts): Promise<YardLine> {
  if ('unreadable' in facts) return unreadableLine(facts);
  const { row, job, devices, experience, name } = facts;
  const assessment = await judgedOnce({ id: row.id, name }, 'verdict', () =>
    Promise.resolve({ job, experience }),
  );
  const move = nextMove(job, { assessment, handedOver: row.state !== 'open', ...readable(devices) });
  const [top] = shownOf(job, assessment, move).findings;
  const line: YardLine = {
    ...visitOf(row),
    label: job.vehicle.label ?? unnamedVehicle,
    plate: plateOf(job),
    lamp: latest(allOf(job, 'lamp'))?.seen.state ?? 'not-seen',
    headline: top ? titleOf(top) : '',
    standing: standingOf(proofOf(job), assessment.findings),
    move,
  };
  last.set(row.id, { name: lineNameOf(row), line, atMs: Date.now() });
  return line;
}

/** Nothing follows from half of what was seen. */
const unreadableLine = ({ row, header, unreadable }: Extract<Facts, { unreadable: string }>): YardLine => ({
  ...visitOf(row),
  ...nameOnFile(header),
  lamp: 'not-seen',
  headline: '',
  standing: 'done',
  move: { kind: 'done' },
  unreadable,
});

/** What the car is called, where its header is not what cannot be read. */
function nameOnFile(stored: unknown): Pick<YardLine, 'label' | 'plate'> {
  const header = headerSchema.safeParse(stored);
  return header.success
    ? { label: header.data.vehicle.label ?? unnamedVehicle, plate: plateOf(header.data) }
    : { label: unnamedVehicle, plate: '' };
}

const visitOf = (row: jobs.YardRow) => ({
  id: row.id,
  number: row.number,
  state: row.state,
  openedAt: new Date(row.openedAt).toISOString(),
  openedBy: row.openedBy,
  handedOverAt: row.handedOverAt ? new Date(row.handedOverAt).toISOString() : null,
});
