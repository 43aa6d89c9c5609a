import type { RunView } from '../../contract';
import { notInThisRun, readFirst, runEnded, unknownRun } from '../../contract/refusals';
import type { CarWrite, Seen } from '../../core/job';
import { monitoredWheels } from '../../core/job/placard';
import {
  hasEnded,
  openStep,
  provedWheels,
  replay,
  timePasses,
  wantedId,
  type Run,
} from '../../core/relearn/run';
import { success, type Result } from '../../core/result';
import type { RegistryEntry } from '../../core/car/uds/receiver';
import type { Position } from '../../core/names/wheel';
import { inTransaction } from '../../data/database';
import * as runs from '../../data/runs';
import { readCar, readSpeed, writeIds } from '../car';
import { deriveKey } from '../jobs/common';
import type { Person } from '../people';
import { wakeAt } from '../readings';
import { tellRun, type ToldWith } from './tell';
import { viewRun } from './view';

/** What devices do within a run: each asks first, and tells the run what came of it. */

const now = (key: string, happening: ToldWith['happening']): ToldWith => ({ key, agoS: 0, happening });

/** The run as it stands this moment, if it has not ended. Where this was told already, that is all. */
async function going(key: string, told: string): Promise<Result<{ view: RunView; run: Run | undefined }>> {
  const view = await viewRun(key);
  if (!view.ok) return view;
  if (await inTransaction((tx) => runs.findEvent(tx, told)))
    return success({ view: view.value, run: undefined });
  const { procedure, events, elapsedS } = view.value;
  const run = timePasses(procedure, replay(procedure, events), elapsedS);
  return hasEnded(run) ? runEnded() : success({ view: view.value, run });
}

/**
 * Wakes the sensor at a wheel whose turn it is, or, in the proof, at one of which nobody knows what the car should hold.
 * Problems: those of the tool and of `tellRun`, `run-ended`.
 */
export async function wakeInRun(
  key: string,
  asked: { key: string; wheel: Position; trigger: Seen<'activation'>['trigger'] },
  who: Person,
): Promise<Result<RunView>> {
  const found = await going(key, asked.key);
  if (!found.ok) return found;
  if (!found.value.run) return success(found.value.view);
  const observed = await wakeAt(found.value.view.jobId, asked, who);
  if (!observed.ok) return observed;
  const ids = observed.value.replies.map(({ id }) => id);
  if (found.value.run.state === 'prove') {
    // Its turn is over: what answers there now is what the car should hold, if it is one sensor alone.
    const [id, another] = ids;
    const known = id !== undefined && another === undefined ? { [asked.wheel]: id } : {};
    return tellRun(
      key,
      [{ ...now(asked.key, { event: 'expect', ids: known }), observed: observed.value }],
      who,
    );
  }
  const heard = now(asked.key, { event: 'heard', wheel: asked.wheel, ids });
  return tellRun(key, [{ ...heard, observed: observed.value }], who);
}

/**
 * Reads what the car holds, with its pressures where the proof asks for them, or how fast it goes.
 * Problems: those of the lead and of `tellRun`, `run-ended`.
 */
export async function readInRun(
  key: string,
  asked: { key: string; what: 'registry' | 'speed' },
  who: Person,
): Promise<Result<RunView>> {
  const found = await going(key, asked.key);
  if (!found.ok) return found;
  const { view, run } = found.value;
  if (!run) return success(view);
  if (asked.what === 'speed') {
    const speed = await readSpeed(view.jobId);
    return speed.ok ? tellRun(key, [now(asked.key, { event: 'speed', kmh: speed.value })], who) : speed;
  }
  if (run.state !== 'prove') return notInThisRun();
  const read = await readCar(view.jobId, asked.key, who);
  if (!read.ok) return read;
  const { observations } = read.value.job;
  const registry = observations.findLast((seen) => seen.kind === 'registry');
  const last = deriveKey(asked.key, 'registry');
  if (registry?.kind !== 'registry' || registry.key !== last) return unknownRun();
  const live = observations.flatMap((seen) =>
    seen.kind === 'live' && seen.key === deriveKey(asked.key, `live ${seen.wheel}`) ? [seen] : [],
  );
  const { proof } = view.procedure;
  return tellRun(
    key,
    [
      // The pressures first: what the car holds may be the last thing that is asked for.
      ...(proof.includes('live')
        ? live.map((seen) => ({
            ...now(deriveKey(asked.key, `told live ${seen.wheel}`), {
              event: 'live',
              wheel: seen.wheel,
              kPa: seen.kPa,
            }),
            observed: null,
          }))
        : []),
      { ...now(asked.key, { event: 'registry', entries: registry.entries }), observed: null },
    ],
    who,
  );
}

/**
 * Sends to the car what was heard in the run, or is expected; where neither is known the car keeps what it holds. The
 * car is read first. Problems: `run-ended`, those of the lead, of a write, and of `tellRun`.
 */
export async function writeInRun(key: string, asked: { key: string }, who: Person): Promise<Result<RunView>> {
  const found = await going(key, asked.key);
  if (!found.ok) return found;
  const { view, run } = found.value;
  if (!run) return success(view);
  const { procedure, jobId } = view;
  if (openStep(procedure, run)?.do !== 'write') return notInThisRun();
  const read = await readCar(jobId, deriveKey(asked.key, 'before'), who);
  if (!read.ok) return read;
  const { job } = read.value;
  const held = job.observations.findLast((seen) => seen.kind === 'registry');
  if (held?.kind !== 'registry') return readFirst();
  const taught = new Set(provedWheels(procedure, run));
  const entries = monitoredWheels(job).map((wheel): RegistryEntry => {
    const there = held.entries.find((entry) => entry.wheel === wheel)?.id ?? null;
    return { wheel, id: (taught.has(wheel) ? wantedId(run, wheel) : undefined) ?? there };
  });
  const write = deriveKey(asked.key, 'write');
  const written = await writeIds(jobId, { key: write, entries, run: key }, who);
  if (!written.ok) return written;
  const answer = answerOf(written.value.job.carWrites ?? [], write);
  return tellRun(key, [now(asked.key, { event: 'answer', answer })], who);
}

/** A write that nobody heard the answer to, for whatever reason, is lost: only the read-back can tell. */
const answerOf = (writes: readonly CarWrite[], key: string): 'yes' | 'no' | 'lost' =>
  writes.find((write) => write.key === key)?.answer ?? 'lost';
