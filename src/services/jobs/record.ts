import { setRight } from '../../core/measure/clock';
import type { Header, Observation } from '../../core/job';
import type { Entry } from '../../core/job/record';
import { mostIn, observationSchema } from '../../core/job/schema';
import {
  alreadyCorrected,
  closedJob,
  jobFull,
  noSpare,
  nothingToCorrect,
  recordedElsewhere,
  tooMuchAtOnce,
  unknownJob,
} from '../../contract/refusals';
import { success, type Result } from '../../core/result';
import { wheelsOf } from '../../core/job/placard';
import type { VisitView } from '../../contract/views';
import { inJobTurn, inTransaction, isDouble, type Tx } from '../../data/database';
import type * as jobs from '../../data/jobs';
import * as observations from '../../data/observations';
import { refuseUnless, type Person } from '../people';
import { originOf, remembered, viewFrom, viewIn } from './view';

/**
 * Adds what was seen. The same key again changes nothing. Problems: `unknown-job`, `handed-over`,
 * `not-allowed`, `no-such-wheel`, `key-in-use`, `nothing-to-correct`, `already-corrected`.
 */
export async function record(id: string, entry: Entry, who: Person): Promise<Result<VisitView>> {
  const refusal = refuseRecording(who, [entry]);
  if (refusal) return refusal;
  const view = await inJobTurn(
    id,
    async () =>
      (await recordedAsKnown(id, entry, who)) ??
      inTransaction(async (tx) => {
        const added = await recordIn(tx, id, [entry], who);
        return added.ok ? viewIn(tx, id) : added;
      }),
  );
  return remembered(view);
}

/**
 * Adds a reading to a job that still is as this process read it last, in one statement: most do, as long as one hand is at
 * the car. Undefined where it is not, or where there is anything to look at: then nothing was added.
 */
async function recordedAsKnown(
  id: string,
  { key, observation, replaces }: Entry,
  who: Person,
): Promise<Result<VisitView> | undefined> {
  const known = originOf(id);
  if (!known || replaces) return undefined;
  const { row, record } = known.stored;
  const { entries } = record;
  const fresh = { key, observation: setRight(observation, Date.now()) };
  const refusal =
    refuseWheel(record.header, observation) ??
    refuseAmount({ count: entries.length, bytes: entries.length * mostBytes }, [fresh]);
  const isThere = entries.some((entry) => entry.key === key);
  if (refusal || isThere) return undefined;
  const revision = await addedAt(row, fresh, who);
  if (revision === undefined) return undefined;
  // As it is stored, and would be read.
  const entry = { key, observation: observationSchema.parse(JSON.parse(JSON.stringify(fresh.observation))) };
  return success(
    viewFrom({
      ...known,
      stored: {
        ...known.stored,
        row: { ...row, revision },
        record: { ...record, entries: [...entries, entry] },
      },
    }),
  );
}

/** The revision of the job with it; undefined where it was not added, as where its key is in use. */
async function addedAt(
  { id, revision }: Pick<jobs.JobRow, 'id' | 'revision'>,
  entry: Entry,
  { name }: Person,
): Promise<string | undefined> {
  try {
    return await observations.addAt(id, revision, name, entry);
  } catch (error) {
    if (isDouble(error)) return undefined;
    throw error;
  }
}

/** What is read at the car is not for the counter, whichever way it comes; the lamp, which anybody sees, is. Problem: `not-allowed`. */
export function refuseRecording(who: Person, entries: readonly Entry[]): Result<never> | undefined {
  return entries.every(({ observation }) => observation.kind === 'lamp')
    ? undefined
    : refuseUnless(who, 'record-readings');
}

/** Why these cannot be the first of a job that is not there yet. Problems: `no-such-wheel`, `key-in-use`. */
export async function refuseFirst(
  tx: Tx,
  header: Header,
  entries: readonly Entry[],
): Promise<Result<never> | undefined> {
  for (const { key, observation } of entries) {
    if (await observations.find(tx, key)) return recordedElsewhere();
    const refusal = refuseWheel(header, observation);
    if (refusal) return refusal;
  }
  return undefined;
}

/** As `record`, for several at once within a use case. */
export async function recordIn(tx: Tx, id: string, entries: Entry[], who: Person): Promise<Result<null>> {
  const found = await observations.lockToRecord(
    tx,
    id,
    entries.map(({ key }) => key),
  );
  if (!found) return unknownJob();
  const { row, held } = found;
  const fresh = firstOfEachKey(entries).filter(({ key }) => held.holders.get(key) !== id);
  for (const [place, entry] of fresh.entries()) {
    if (held.holders.has(entry.key)) return recordedElsewhere();
    if (row.state !== 'open') return closedJob(row.state);
    const refusal =
      (await refuseCorrection(tx, id, entry)) ??
      refuseWheel(row.header, entry.observation) ??
      refuseAmount(held, fresh.slice(0, place + 1));
    if (refusal) return refusal;
    const observation = setRight(entry.observation, Date.now());
    await observations.add(tx, id, who.name, { ...entry, observation });
  }
  return success(null);
}

/** Of two of one key the first is meant. */
export function firstOfEachKey<Keyed extends { key: string }>(entries: readonly Keyed[]): Keyed[] {
  const first = new Map(entries.toReversed().map((entry) => [entry.key, entry]));
  return entries.filter((entry) => first.get(entry.key) === entry);
}

/** One thing that was seen has some hundred bytes; what another program adds to it has room in so many (judgement). */
const mostBytes = 20_000;

/** All that is seen at a visit, with what other programs add to it, has room in so many (judgement). */
const mostBytesOfJob = 4_000_000;

/** A job is of one visit, and has an end: what it holds and what is to come. Problems: `too-large`, `job-full`. */
export function refuseAmount(
  held: { count: number; bytes: number },
  entries: readonly Entry[],
): Result<never> | undefined {
  const bytes = entries.map(({ observation }) => Buffer.byteLength(JSON.stringify(observation)));
  if (bytes.some((size) => size > mostBytes)) return tooMuchAtOnce();
  const isFull =
    held.count + entries.length > mostIn.observations ||
    held.bytes + bytes.reduce((sum, size) => sum + size, 0) > mostBytesOfJob;
  return isFull ? jobFull(held.count) : undefined;
}

async function refuseCorrection(tx: Tx, jobId: string, entry: Entry): Promise<Result<never> | undefined> {
  if (!entry.replaces) return undefined;
  const old = await observations.find(tx, entry.replaces);
  if (old?.jobId !== jobId || old.kind !== entry.observation.kind) {
    return nothingToCorrect();
  }
  return (await observations.findCorrectionOf(tx, entry.replaces)) ? alreadyCorrected() : undefined;
}

function refuseWheel(job: Header, observation: Observation): Result<never> | undefined {
  if (!('wheel' in observation) || !observation.wheel) return undefined;
  return observation.wheel === 'SP' && !wheelsOf(job).includes('SP') ? noSpare() : undefined;
}
