import { findingsHeld } from '../core/assessment';
import { assess, type Experience } from '../core/diagnosis';
import { titleOf, toRead } from '../core/finding';
import { withTrust, type Instrument } from '../core/gauge';
import { toJobFile } from '../core/job/record';
import { latest, allOf } from '../core/job';
import { proofOf } from '../core/proof';
import type { Receiver } from '../core/uds/receiver';
import { nextMove } from '../core/visit';
import { plateOf, type VisitView, type YardLine } from '../core/visit/view';
import type { StoredJob } from '../data/jobs';
import { hasLead, hasTool, practiceBay } from './devices';

/** What a job is judged by beyond itself. */
export interface Surroundings {
  /** What the profile of its vehicle knows of the receiver. */
  receiver: Receiver | undefined;
  /** The shop's gauges. */
  instruments: Instrument[];
  /** What the shop had seen when the job was opened. */
  experience: Experience | undefined;
}

/** Works out what a stored job says; nothing of it is stored. */
export function viewOf(
  { row, record }: StoredJob,
  { receiver, instruments, experience }: Surroundings,
): VisitView {
  const job = withTrust(toJobFile(record), instruments);
  const assessment = assess(job, experience);
  const canBeRead = receiver !== undefined;
  const devices = {
    tool: hasTool() && job.vehicle.tpms.kind === 'direct',
    lead: hasLead() && canBeRead,
    practice: practiceBay() !== undefined && canBeRead,
  };
  const handedOver = row.state === 'handed-over';
  return {
    id: row.id,
    number: row.number,
    version: row.version,
    state: row.state,
    job,
    assessment,
    ...(experience && { experience }),
    codes: receiver?.codes ?? {},
    proof: proofOf(job),
    move: nextMove(job, { assessment, handedOver, hasLead: devices.lead, hasTool: devices.tool }),
    devices,
    gauges: instruments
      .filter(({ retired }) => !retired)
      .map((gauge) => ({ ...gauge, checks: gauge.checks.slice(-1) })),
  };
}

export function yardLineOf(stored: StoredJob, surroundings: Surroundings): YardLine {
  const { row } = stored;
  const view = viewOf(stored, surroundings);
  const [top] = toRead(findingsHeld(view.assessment));
  return {
    id: row.id,
    number: row.number,
    label: view.job.vehicle.label ?? 'Unnamed vehicle',
    plate: plateOf(view.job),
    state: row.state,
    openedAt: row.openedAt.toISOString(),
    openedBy: row.openedBy,
    handedOverAt: row.handedOverAt?.toISOString() ?? null,
    lamp: latest(allOf(view.job, 'lamp'))?.seen.state ?? 'not-seen',
    headline: top ? titleOf(top) : '',
    move: view.move,
  };
}
