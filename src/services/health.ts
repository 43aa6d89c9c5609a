import { monitorEventLoopDelay } from 'node:perf_hooks';
import { databaseAnswers } from '../data/database';

const stepMs = 5;
const delay = monitorEventLoopDelay({ resolution: stepMs });
delay.enable();

export interface Health {
  ok: boolean;
  /** How late the event loop was since this was asked last, in the worst of a hundred turns, ms. */
  eventLoopP99Ms: number;
}

/** Whether the app can serve: its database answers; and how promptly. */
export async function health(): Promise<Health> {
  const late = delay.percentile(99) / 1e6 - stepMs;
  delay.reset();
  return { ok: await databaseAnswers(), eventLoopP99Ms: Math.max(0, Math.round(late * 10) / 10 || 0) };
}
