import { log, traceOf } from '../services/log';

/**
 * The net under all: a fault that nothing caught (of a listener, a timer, a promise nobody waits for) is written down, and
 * the process goes on serving. Whatever it was at rolled back or is asked again by its key.
 */
export function outlivesFaults(): void {
  process.on('uncaughtException', (error) => log.error(traceOf(error), 'a fault was caught by nothing'));
}
