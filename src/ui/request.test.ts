import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { gauge } from '../../tests/support/car';
import { recordsAway } from '../contract/refusals';
import { usualSettings } from '../core/records/shop';
import { request } from './request';

/** What the shop answers, one request after the other; what is not an answer never comes. */
let answers: (Response | 'nothing')[];
let asked: number;
const busy = () => Response.json({ error: recordsAway().problem }, { status: 503 });

beforeEach(() => {
  vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] });
  asked = 0;
  // The time limit of a browser's own clock, moved by the test's.
  vi.stubGlobal('AbortSignal', {
    timeout: (ms: number) => {
      const over = new AbortController();
      setTimeout(() => over.abort(new DOMException('too long', 'TimeoutError')), ms);
      return over.signal;
    },
  });
  vi.stubGlobal('fetch', (_: string, { signal }: { signal: AbortSignal }) => {
    asked += 1;
    const answer = answers.shift();
    return answer instanceof Response
      ? Promise.resolve(answer)
      : new Promise((_resolve, reject) => signal.addEventListener('abort', () => reject(signal.reason)));
  });
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});
const later = (ms: number) => vi.advanceTimersByTimeAsync(ms);

describe('a shop that never answers', () => {
  const reading = { key: '01a00000-0000-7000-8000-000000000001', observation: gauge(1, 'LF', 230) };
  const outcomeOf = (work: Promise<unknown>) => {
    const outcome: { answer?: unknown } = {};
    void work.then((answer) => (outcome.answer = answer));
    return outcome;
  };

  it('is given up by what waits in an outbox after fifteen seconds, so that what is behind it goes out', async () => {
    answers = ['nothing'];
    const outcome = outcomeOf(request('record', { id: 'x', body: reading, queued: true }));
    await later(14_000);
    expect(outcome.answer).toBeUndefined();
    await later(1500);
    expect(outcome.answer).toMatchObject({ ok: false, problem: { code: 'offline' } });
  });

  it('is waited for longer where a car or a tool takes its time', async () => {
    answers = ['nothing'];
    const outcome = outcomeOf(request('readCar', { id: 'x', body: { key: reading.key } }));
    await later(60_000);
    expect(outcome.answer).toBeUndefined();
    await later(120_000);
    expect(outcome.answer).toMatchObject({ ok: false, problem: { code: 'offline' } });
  });
});

describe('a shop that is held up', () => {
  it('is asked again, and what is told in the end is its answer', async () => {
    answers = [busy(), busy(), Response.json(usualSettings)];
    const answer = request('shop', {});
    await later(2000);
    expect(await answer).toMatchObject({ ok: true });
    expect(asked).toBe(3);
  });

  it('is not asked for ever', async () => {
    answers = Array.from({ length: 20 }, busy);
    const answer = request('shop', {});
    await later(60_000);
    expect(await answer).toMatchObject({ ok: false, problem: { code: 'busy' } });
    expect(asked).toBe(5);
  });

  it('is asked once for what has no key, and by an outbox, which comes back by itself', async () => {
    answers = [busy(), busy()];
    const unkeyed = await request('signIn', { body: { name: 'Ines', passphrase: 'cold morning gauge' } });
    expect(unkeyed).toMatchObject({ ok: false, problem: { code: 'busy' } });
    expect(asked).toBe(1);
    await request('record', {
      id: 'x',
      body: { key: '01a00000-0000-7000-8000-000000000001', observation: gauge(1, 'LF', 230) },
      queued: true,
    });
    expect(asked).toBe(2);
  });
});
