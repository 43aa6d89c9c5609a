import { randomBytes } from 'node:crypto';
import { Webhook } from 'standardwebhooks';
import type { ToldAddress } from '../../contract/doors';
import { unknownAddress } from '../../contract/refusals';
import { success, type Result } from '../../core/result';
import { inTransaction, type Tx } from '../../data/database';
import * as doors from '../../data/doors';
import { log, traceOf } from '../log';
import { refuseUnless, type Person } from '../people';

/**
 * Addresses that are told when a car is handed over. What is sent is signed as Standard Webhooks has it (`webhook-id`,
 * `webhook-timestamp`, `webhook-signature`); what did not arrive is sent again, with the same ID.
 */

/** The secret is told once, here. Problem: `not-allowed`. */
export function addWebhook(
  asked: { key: string; url: string },
  who: Person,
): Promise<Result<{ secret: string; addresses: ToldAddress[] }>> {
  return inTransaction(async (tx) => {
    const refusal = refuseUnless(who, 'manage-shop');
    if (refusal) return refusal;
    const before = await doors.findWebhook(tx, asked.key);
    const secret = before?.secret ?? `whsec_${randomBytes(24).toString('base64')}`;
    if (!before) await doors.addWebhook(tx, { id: asked.key, url: asked.url, secret, madeBy: who.name });
    return success({ secret, addresses: await addressesIn(tx) });
  });
}

const addressesIn = async (tx: Tx): Promise<ToldAddress[]> =>
  (await doors.webhookStates(tx)).map(({ madeAt, nextAt, ...state }) => ({
    ...state,
    madeAt: madeAt.toISOString(),
    nextAt: nextAt && nextAt.toISOString(),
  }));

/** Problem: `not-allowed`. */
export async function toldAddresses(who: Person): Promise<Result<ToldAddress[]>> {
  const refusal = refuseUnless(who, 'manage-shop');
  return refusal ?? success(await inTransaction(addressesIn));
}

/** It is told no more, or all that did not arrive is sent again now. Problems: `not-allowed`, `unknown-address`. */
export function changeWebhook(
  id: string,
  { what }: { what: 'end' | 'again' },
  who: Person,
): Promise<Result<ToldAddress[]>> {
  return inTransaction(async (tx) => {
    const refusal = refuseUnless(who, 'manage-shop');
    if (refusal) return refusal;
    const row = await doors.findWebhook(tx, id);
    if (!row || row.endedAt) return unknownAddress();
    if (what === 'again') await doors.tryAgainNow(tx, id);
    else {
      await row.update({ endedAt: new Date(), endedBy: who.name }, { transaction: tx });
      await doors.dropNews(tx, id);
    }
    return success(await addressesIn(tx));
  });
}

/** Until the next try, s: soon, then rarer, for three days in all (judgement). */
const pauses = [10, 60, 300, 1800, 7200, 21_600, 43_200, 86_400, 86_400];
/** Whoever answers later than this did not answer, ms. */
const patienceMs = 10_000;
/** What is being sent is not sent by anybody else meanwhile. */
const takenMs = 3 * patienceMs;

/** Sends all that is due. Returns how much was. */
export async function tellDue(now = () => new Date()): Promise<number> {
  const due = await doors.takeDueNews(takenMs);
  await Promise.all(
    due.map(async (news) => {
      const { isTold, answer } = await tell(news, now());
      const pause = pauses[news.tries - 1];
      await doors.noteAnswer(news.key, {
        answer,
        toldAt: isTold ? now() : null,
        nextAt: isTold || pause === undefined ? null : new Date(now().getTime() + pause * 1000),
      });
    }),
  );
  return due.length;
}

async function tell(
  { key, body, url, secret }: doors.DueNews,
  at: Date,
): Promise<{ isTold: boolean; answer: string }> {
  const payload = JSON.stringify(body);
  try {
    const response = await fetch(url, {
      method: 'POST',
      // Nobody is led elsewhere with what is told.
      redirect: 'manual',
      signal: AbortSignal.timeout(patienceMs),
      headers: {
        'content-type': 'application/json',
        'webhook-id': key,
        'webhook-timestamp': String(Math.floor(at.getTime() / 1000)),
        'webhook-signature': new Webhook(secret).sign(key, at, payload),
      },
      body: payload,
    });
    await response.body?.cancel();
    return { isTold: response.ok, answer: `answered ${response.status}` };
  } catch (error) {
    const isLate = error instanceof Error && error.name === 'TimeoutError';
    return { isTold: false, answer: isLate ? 'did not answer in 10 s' : 'not reached' };
  }
}

const lookEveryMs = 5_000;

/** Sends what is due from now on, in the background; returns how to end it. */
export function keepTelling(): () => void {
  let busy = false;
  const timer = setInterval(() => {
    if (busy) return;
    busy = true;
    tellDue()
      .catch((error: unknown) => log.warn(traceOf(error), 'news were not sent'))
      .finally(() => (busy = false));
  }, lookEveryMs);
  timer.unref();
  return () => clearInterval(timer);
}
