import { monitorEventLoopDelay } from 'node:perf_hooks';
import type { Health } from '../contract/health';
import { databaseAnswers } from '../data/database';
import { backupState } from './backups';

const stepMs = 5;
const delay = monitorEventLoopDelay({ resolution: stepMs });
delay.enable();

/** Whether the app can serve: its database answers; and how promptly. */
export async function health(): Promise<Health> {
  const late = delay.percentile(99) / 1e6 - stepMs;
  delay.reset();
  const ok = await databaseAnswers();
  const backup = ok ? await backupState().catch(() => undefined) : undefined;
  return { ok, eventLoopP99Ms: Math.max(0, Math.round(late * 10) / 10 || 0), ...(backup && { backup }) };
}
