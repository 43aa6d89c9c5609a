import cluster, { type Worker } from 'node:cluster';
import { log } from '../services/log';
import { outlivesFaults } from './net';
import { pauseAfter } from './pause';
import { answersForAll } from './metrics';

/** A process that was asked to end has so long; it needs less itself. */
const patienceMs = 9_500;

/**
 * Shares the work among server processes behind one address. One that ends by itself is started again, later each time in a
 * row; asked to stop, all of them stop in order.
 */
export function shareOut(count: number): void {
  outlivesFaults();
  let isStopping = false;
  const start = (inARow: number) => {
    const startedAt = Date.now();
    const worker = cluster.fork();
    answersForAll(worker);
    worker.once('exit', (code, signal) => {
      if (isStopping) return leaveWhenEmpty();
      const { pauseMs, next } = pauseAfter(Date.now() - startedAt, inARow);
      log.error({ of: worker.process.pid, code, signal, pauseMs }, 'a server process ended by itself');
      setTimeout(() => !isStopping && start(next), pauseMs);
    });
  };
  const living = (): Worker[] =>
    Object.values(cluster.workers ?? {}).flatMap((worker) => (worker && !worker.isDead() ? [worker] : []));
  const leaveWhenEmpty = () => {
    if (living().length === 0) process.exit(0);
  };
  const stop = () => {
    if (isStopping) return;
    isStopping = true;
    for (const worker of living()) worker.process.kill('SIGTERM');
    setTimeout(() => process.exit(0), patienceMs).unref();
    leaveWhenEmpty();
  };
  process.on('SIGTERM', stop);
  process.on('SIGINT', stop);
  for (let n = 0; n < count; n += 1) start(0);
}
