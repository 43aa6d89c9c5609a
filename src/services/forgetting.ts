import { forgetLongAway } from './erasures';
import { log, traceOf } from './log';
import { forgetOldLooks } from './looks';
import { dayMs } from '../core/measure/calendar/spans';

/** What is kept no longer than it is needed: who looked at what, and whoever was not here for years. */

/** Once those who wait at the door of a new server are in. */
const soonMs = 60_000;

/** Forgets what is due, soon after the start and every day from then on: a shop that is switched off in the evening does too. */
export function keepForgetting(): void {
  setTimeout(forgetDue, soonMs).unref();
  setInterval(forgetDue, dayMs).unref();
}

function forgetDue(): void {
  for (const forget of [forgetOldLooks, forgetLongAway])
    forget().catch((error: unknown) => log.warn(traceOf(error), 'not forgotten yet: tried again tomorrow'));
}
