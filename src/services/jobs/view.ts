import { LRUCache } from 'lru-cache';
import { unknownJob } from '../../contract/refusals';
import { notesOf } from '../../core/job/header';
import { reasonsFor, type Reasons } from '../../core/judgement/diagnosis/explanation/reasons';
import type { Instrument } from '../../core/tire/gauge';
import type { Job } from '../../core/job';
import { toJobFile } from '../../core/job/record';
import { success, type Result } from '../../core/result';
import { proofOf, type Proof } from '../../core/visit/proof';
import type { Sheet } from '../../core/visit/sheet';
import type { Claims } from '../../core/records/shop-figures/claims';
import { nextMove, type Move } from '../../core/visit';
import type { Assessment } from '../../core/judgement/assessment';
import type { Notation } from '../../core/measure/units';
import { judgedJob, readable, type VisitView } from '../../contract/views';
import type { Tx } from '../../data/database';
import * as jobs from '../../data/jobs';
import { judgedOnce } from '../judging';
import { atHand, devicesNow } from '../devices';
import { shopCurve } from '../sensor-lives';
import { surroundings, type Surroundings } from '../surroundings';

/** The view of each job as it was put together last, with all it rests on: twenty screens that hear of one reading are told the same. */
const views = new LRUCache<string, { name: string; view: VisitView }>({ max: 300 });

/** What a view was put together from. */
export interface Origin {
  stored: jobs.StoredJob;
  around: Surroundings;
}

const origins = new WeakMap<VisitView, Origin & { name: string }>();

/** What the view that is kept of a job was put together from; undefined where none is. It may be old. */
export function originOf(id: string): Origin | undefined {
  const known = views.get(id);
  return known && origins.get(known.view);
}

const viewName = ({ revision, surroundings }: jobs.Stamp): string =>
  [revision, surroundings, ...Object.values(devicesNow())].join();

/** The job as a screen needs it: facts alone. One query where nothing changed. Problem: `unknown-job`. */
export async function viewJob(id: string): Promise<Result<VisitView>> {
  const stamp = await jobs.stampOf(id);
  if (!stamp) return unknownJob();
  const known = views.get(id);
  return known?.name === viewName(stamp) ? success(known.view) : remembered(await viewIn(undefined, id));
}

/** Keeps a view for whoever asks next. Not of what is not committed yet: that may never have been. */
export function remembered(view: Result<VisitView>): Result<VisitView> {
  const name = view.ok ? origins.get(view.value)?.name : undefined;
  if (view.ok && name !== undefined) views.set(view.value.id, { name, view: view.value });
  return view;
}

/** Counts all that was recorded on a job; undefined where there is no such job. */
export const revisionOf = async (id: string): Promise<number | undefined> => {
  const stamp = await jobs.stampOf(id);
  return stamp && Number(stamp.revision);
};

/** `tx`: where one is open, of what was just changed in it. */
export async function viewIn(tx: Tx | undefined, id: string): Promise<Result<VisitView>> {
  const stored = await jobs.loadJob(tx, id);
  if (!stored) return unknownJob();
  return success(viewFrom({ stored, around: await surroundings(tx, stored.surroundings) }));
}

/** The view of a job as it was read, in what it was read with. */
export function viewFrom(origin: Origin): VisitView {
  const { row, record, surroundings } = origin.stored;
  const { shop, gauges, receiverOf, experienceAt } = origin.around;
  const receiver = receiverOf(record.header);
  const experience = experienceAt(row.openedAt);
  const job = toJobFile(record);
  const sensorCurve = shopCurve();
  const view: VisitView = {
    id: row.id,
    number: row.number,
    vehicleId: row.vehicleId,
    version: row.version,
    revision: Number(row.revision),
    state: row.state,
    job,
    ...(experience && { experience }),
    ...(sensorCurve && { sensorCurve }),
    ...(shop.prices && { prices: shop.prices }),
    codes: receiver?.codes ?? {},
    devices: atHand(job, receiver, shop),
    gauges: speakingFor(job, gauges),
  };
  origins.set(view, { ...origin, name: viewName({ revision: row.revision, surroundings }) });
  return view;
}

/** The gauges in use and those this job was read with, each with the checks that speak for its readings. */
export function speakingFor(job: Job, register: readonly Instrument[]): Instrument[] {
  const readings = [...job.observations, ...(job.history ?? [])].flatMap((seen) =>
    seen.kind === 'gauge' ? [seen] : [],
  );
  const sinceMs = Math.min(
    Date.parse(notesOf(job).openedAt ?? '') || Date.now(),
    ...readings.map(({ at }) => Date.parse(at)),
  );
  return register
    .filter(({ id, retired }) => !retired || readings.some(({ gauge }) => gauge === id))
    .map((gauge) => {
      const last = gauge.checks.findLastIndex(({ at }) => Date.parse(at) <= sinceMs);
      return { ...gauge, checks: gauge.checks.slice(Math.max(0, last)) };
    });
}

/** What follows from a job; worked out once for what it rests on. */
export const assessmentOf = (view: VisitView): Promise<Assessment> =>
  judgedOnce({ id: view.id, name: nameOf(view) }, 'assessment', () => factsOf(view));

/** The same without the evidence of its findings, which takes longest. */
export const briefAssessmentOf = (view: VisitView): Promise<Assessment> =>
  judgedOnce({ id: view.id, name: nameOf(view) }, 'verdict', () => factsOf(view));

/** Why each of its findings is made, worded in these units. */
export const reasonsOf = (view: VisitView, assessment: Assessment, units: Notation): Reasons =>
  reasonsFor(judgedJob(view), assessment, units);

/** The same with what proves the visit, and the next move: for programs that have no screen of their own. */
export async function verdictOf(
  view: VisitView,
): Promise<{ assessment: Assessment; proof: Proof; move: Move }> {
  const assessment = await assessmentOf(view);
  const job = judgedJob(view);
  const context = { assessment, handedOver: view.state !== 'open', ...readable(view.devices) };
  return { assessment, proof: proofOf(job), move: nextMove(job, context) };
}

/** The sheet of a job; likewise. */
export const sheetOfJob = (view: VisitView): Promise<Sheet> =>
  judgedOnce({ id: view.id, name: nameOf(view) }, 'sheet', () => factsOf(view));

/** What was said of a job against what its parts turned out to be; likewise. */
export const claimsOfJob = (view: VisitView): Promise<Claims> =>
  judgedOnce({ id: view.id, name: nameOf(view) }, 'claims', () => factsOf(view));

const factsOf = (view: VisitView) => Promise.resolve({ job: judgedJob(view), experience: view.experience });

/** All that a verdict rests on. */
export const nameOf = ({
  id,
  revision,
  gauges,
  experience,
}: Pick<VisitView, 'id' | 'revision' | 'gauges' | 'experience'>): string =>
  [
    id,
    revision,
    JSON.stringify(gauges.map(({ id: gauge, checks }) => [gauge, checks.at(-1)?.key])),
    JSON.stringify(experience ?? {}),
  ].join();
