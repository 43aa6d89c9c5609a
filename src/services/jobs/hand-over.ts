import { v7 as newId } from 'uuid';
import type { RepairOutcome } from '../../core/job/repair-outcome';
import { wasDone, type Job } from '../../core/job';
import type { Signature } from '../../core/job/notes';
import { ledgerOf } from '../../core/job/ledger';
import { closedJob, handedOverAlready, notProved, runUnderWay, unknownJob } from '../../contract/refusals';
import type { Result } from '../../core/result';
import { owedFor } from '../../core/records/follow-up';
import { proofOf } from '../../core/visit/proof';
import { scannedIds } from '../../core/car/registration';
import { notesOf } from '../../core/job/header';
import { judgedJob, type VisitView } from '../../contract/views';
import { inJobTransaction, type Tx } from '../../data/database';
import { addFollowUp } from '../../data/follow-ups';
import * as jobs from '../../data/jobs';
import { loadWheelSets, saveWheelSet } from '../../data/wheel-sets';
import { freeLabel, setHeard, type WheelSet } from '../../core/records/wheel-set';
import { confirmIn } from '../confirmations';
import type { Person } from '../people';
import { openRunIn } from '../runs/start';
import { deriveKey, stale } from './common';
import { noteHandedOver } from './note-handed-over';
import { viewIn } from './view';
import { dayAfter, dayMs, yearMs } from '../../core/measure/calendar/spans';
import { loadShop } from '../../data/shop';
import { notationHere } from '../notation';
import { dayThere } from '../../core/measure/calendar';

/**
 * Hands the car over and closes the job; what the tool heard goes on file for the next visit, and what the
 * parts turned out to be, where somebody says so. A visit that is not proved is handed over only with a
 * reason. Of two at once the second is told. Problems: `unknown-job`, `handed-over`, `stale`, `run-under-way`, `not-proved`, and those of `confirmIn`.
 */
export function handOver(
  id: string,
  asked: {
    key: string;
    version: number;
    unproved?: string;
    parts?: RepairOutcome[];
    signature?: Pick<Signature, 'strokes'>;
  },
  who: Person,
): Promise<Result<VisitView>> {
  return inJobTransaction(id, async (tx) => {
    const row = await jobs.lockJob(tx, id);
    if (!row) return unknownJob();
    if (row.state === 'handed-over') {
      const isAgain = (await jobs.findEdit(tx, asked.key))?.jobId === id;
      return isAgain ? viewIn(tx, id) : handedOverAlready(notesOf(row.header).handedOverBy ?? 'somebody');
    }
    if (row.state === 'cancelled') return closedJob(row.state);
    if (row.version !== asked.version) return stale(tx, id, asked.version);
    const run = await openRunIn(tx, row.vehicleId);
    if (run?.jobId === id) return runUnderWay(run.by);
    const view = await viewIn(tx, id);
    if (!view.ok) return view;
    const job = judgedJob(view.value);
    const proof = proofOf(job);
    if (!proof.proved && !asked.unproved) {
      const open = proof.checks
        .filter(({ state }) => state !== 'met')
        .map(({ name, text }) => ({ path: name, message: text }));
      return notProved(open);
    }
    if (asked.parts) {
      const parts = { key: deriveKey(asked.key, 'parts'), parts: asked.parts };
      const confirmed = await confirmIn(tx, row, parts, who);
      if (!confirmed.ok) return confirmed;
    }
    const handedOverAt = new Date();
    const visit = {
      ...notesOf(job),
      handedOverAt: handedOverAt.toISOString(),
      handedOverBy: who.name,
      proof,
      ...(!proof.proved && asked.unproved && { unproved: asked.unproved }),
      ...(asked.signature && {
        signature: { strokes: asked.signature.strokes, at: handedOverAt.toISOString() },
      }),
    };
    await jobs.saveEdit(
      tx,
      row,
      { key: asked.key, by: who.name, changes: [{ field: 'state', from: 'open', to: 'handed-over' }] },
      { header: { ...row.header, visit }, state: 'handed-over', handedOverAt, handedOverBy: who.name },
    );
    await noteHandedOver(tx, row, { at: handedOverAt, by: who.name, proved: proof.proved });
    const today = dayThere(handedOverAt, notationHere(await loadShop(tx)));
    await fileSensors(tx, row.vehicleId, job, today);
    await followUp(tx, row, job, { key: asked.key, parts: asked.parts ?? [], today, by: who.name });
    return viewIn(tx, id);
  });
}

/** What nobody looked at on this visit, and did not say at hand-over what it was, is looked at again. */
async function followUp(
  tx: Tx,
  { id: jobId, vehicleId }: jobs.JobRow,
  job: Job,
  { key, parts, today, by }: { key: string; parts: readonly RepairOutcome[]; today: string; by: string },
): Promise<void> {
  for (const owed of owedFor(job, today)) {
    if (parts.some(({ part, wheel }) => part === 'tire' && wheel === owed.wheel)) continue;
    await addFollowUp(tx, { ...owed, key: deriveKey(key, `follow-up ${owed.wheel}`), vehicleId, jobId, by });
  }
}

/** The sensors heard are those of the set on the car from now on; one already known keeps its age, a wheel its tire. */
async function fileSensors(tx: Tx, vehicleId: string, job: Job, today: string): Promise<void> {
  const heard = scannedIds(job, ledgerOf(job));
  if (heard.length === 0) return;
  const sets = await loadWheelSets(tx, vehicleId);
  const known = sets.flatMap(({ wheels }) => wheels);
  const onCar = sets.find(({ place }) => place === 'car');
  const heardSet = setHeard(sets, heard) ?? onCar;
  if (onCar && heardSet !== onCar) await saveWheelSet(tx, { ...onCar, place: 'customer', rack: null });
  const fitted: Omit<WheelSet, 'version'> = heardSet
    ? { ...heardSet, place: 'car', rack: null }
    : {
        id: newId(),
        vehicleId,
        label: freeLabel('on the car', sets),
        season: 'all-season',
        place: 'car',
        rack: null,
        wheels: [],
      };
  const wheels = new Set(heard.map(({ wheel }) => wheel));
  await saveWheelSet(tx, {
    ...fitted,
    wheels: [
      ...heard.map(({ wheel, id }) => ({
        ...(fitted.wheels.find((one) => one.wheel === wheel) ?? noTire),
        wheel,
        sensorId: id,
        newOn: known.find(({ sensorId }) => sensorId === id)?.newOn ?? birthday(job, id, today),
      })),
      ...fitted.wheels.filter(({ wheel }) => wheel === null || !wheels.has(wheel)),
    ],
  });
}

const noTire = { treadMm: null, dot: null, size: null };

/** When the sensor was new: by its age on the job, or today where one was just fitted; else not known. */
function birthday(job: Job, id: string, today: string): string | null {
  const age = job.sensors?.find((sensor) => sensor.id === id)?.ageYears;
  const justFitted = wasDone(job, 'sensor-replaced');
  if (age === undefined && !justFitted) return null;
  return dayAfter(today, -Math.round(((age ?? 0) * yearMs) / dayMs));
}
