import type { benchTriggers } from '../core/names/kinds';
import { unknownJob, unknownVehicle } from '../contract/refusals';
import type { Reply, Seen } from '../core/job';
import { success, type Result } from '../core/result';
import type { VisitView } from '../contract/views';
import type { Position } from '../core/names/wheel';
import { inTransaction } from '../data/database';
import * as observations from '../data/observations';
import { findVehicleById } from '../data/vehicles';
import { activationTool, noteDevice } from './devices';
import { record, viewJob } from './jobs';
import { refuseUnless, type Person } from './people';

/**
 * Wakes the sensor at a wheel through the activation tool and records what answered, silence included.
 * The same key again does not wake it again. Problems: those of `wakeAt` and of `record`.
 */
export async function wake(
  id: string,
  asked: { key: string; wheel: Position; trigger: Seen<'activation'>['trigger'] },
  who: Person,
): Promise<Result<VisitView>> {
  const there = await inTransaction((tx) => observations.find(tx, asked.key));
  if (there) return there.jobId === id ? viewJob(id) : unknownJob();
  const observation = await wakeAt(id, asked, who);
  return observation.ok ? record(id, { key: asked.key, observation: observation.value }, who) : observation;
}

/**
 * Wakes one wheel of a set that lies on the bench. Nothing is stored: what was read is saved with the set. Problems:
 * `unknown-vehicle`, `not-allowed`, and those of the tool.
 */
export async function readOnBench(
  vehicleId: string,
  { wheel, trigger }: { wheel: Position; trigger: (typeof benchTriggers)[number] },
  who: Person,
): Promise<Result<{ replies: Reply[] }>> {
  const refusal = refuseUnless(who, 'record-readings');
  if (refusal) return refusal;
  const vehicle = await inTransaction((tx) => findVehicleById(tx, vehicleId));
  if (!vehicle) return unknownVehicle();
  const tool = activationTool();
  if (!tool.ok) return tool;
  const replies = await tool.value.wake({
    wheel,
    trigger,
    vehicle: vehicle.vin ?? vehicle.label,
    place: 'bench',
  });
  noteDevice('tool', replies, who.name);
  return replies.ok ? success({ replies: replies.value }) : replies;
}

/** The same, for whoever records it. Problems: `not-allowed`, `unknown-job`, and those of the tool. */
export async function wakeAt(
  id: string,
  asked: { wheel: Position; trigger: Seen<'activation'>['trigger'] },
  who: Person,
): Promise<Result<Seen<'activation'>>> {
  const refusal = refuseUnless(who, 'record-readings');
  if (refusal) return refusal;
  const view = await viewJob(id);
  if (!view.ok) return view;
  const tool = activationTool();
  if (!tool.ok) return tool;
  const { vin, label } = view.value.job.vehicle;
  const { wheel, trigger } = asked;
  const replies = await tool.value.wake({ wheel, trigger, vehicle: vin ?? label ?? view.value.id });
  noteDevice('tool', replies, who.name);
  if (!replies.ok) return replies;
  const at = new Date().toISOString();
  return success({ kind: 'activation', at, wheel, trigger, replies: replies.value });
}
