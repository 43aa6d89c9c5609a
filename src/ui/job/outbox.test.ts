import { afterEach, beforeAll, beforeEach, describe, expect, it, vi } from 'vitest';
import { gauge, jobWith } from '../../../tests/support/car';
import type { VisitView } from '../../core/visit/view';
import { outboxOfJob, type Waiting } from './outbox';

/** A browser's storage and a connection that can be cut, as far as the outbox sees them. */
class Storage {
  private readonly items = new Map<string, string>();
  getItem = (name: string) => this.items.get(name) ?? null;
  setItem = (name: string, value: string) => void this.items.set(name, value);
  removeItem = (name: string) => void this.items.delete(name);
}
type Answer = 'stored' | 'offline' | { status: number; error: { code: string; message: string } };

const visit: VisitView = {
  id: '0190a000-0000-7000-8000-000000000001',
  number: 1,
  version: 1,
  revision: 2,
  state: 'open',
  job: jobWith([]),
  codes: {},
  devices: { tool: false, lead: false, takesThresholds: false, practice: false },
  gauges: [],
};

let sent: { key: string }[];
let answers: Answer[];
const item = (key: string): Waiting => ({ key, observation: gauge(1, 'LF', 230) });
const settle = () => vi.advanceTimersByTimeAsync(10);

// Answers are held against the contract, which is fetched when first needed.
beforeAll(() => import('../../contract'));
beforeEach(() => {
  vi.useFakeTimers();
  sent = [];
  answers = [];
  vi.stubGlobal('localStorage', new Storage());
  vi.stubGlobal('fetch', (_: string, init: { body: string }) => {
    const answer = answers.shift() ?? 'stored';
    if (answer === 'offline') return Promise.reject(new TypeError('no network'));
    sent.push(JSON.parse(init.body) as { key: string });
    return Promise.resolve(
      answer === 'stored'
        ? Response.json(visit)
        : Response.json({ error: answer.error }, { status: answer.status }),
    );
  });
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

describe('what is recorded without a connection', () => {
  it('waits, and goes out by itself in the order it was taken', async () => {
    answers = ['offline', 'offline'];
    const outbox = outboxOfJob('job', () => undefined);
    outbox.add(item('one'));
    outbox.add(item('two'));
    await settle();
    expect(outbox.items().map(({ key }) => key)).toEqual(['one', 'two']);
    expect(sent).toEqual([]);
    await vi.advanceTimersByTimeAsync(5000);
    expect(sent.map(({ key }) => key)).toEqual(['one', 'two']);
    expect(outbox.items()).toEqual([]);
  });

  it('survives that the page is closed', async () => {
    answers = ['offline', 'offline', 'offline'];
    outboxOfJob('job', () => undefined).add(item('one'));
    await settle();
    const again = outboxOfJob('job', () => undefined);
    expect(again.items().map(({ key }) => key)).toEqual(['one']);
    answers = [];
    await again.flush();
    expect(sent.map(({ key }) => key)).toContain('one');
    expect(outboxOfJob('job', () => undefined).items()).toEqual([]);
  });

  it('leaves out what is no reading, and what is no list', async () => {
    for (const kept of ['{"a":1}', 'no json', '[{"key":"one"},{"key":7,"observation":{}}]']) {
      localStorage.setItem('hacienda.outbox.job', kept);
      expect(outboxOfJob('job', () => undefined).items(), kept).toEqual([]);
    }
    await settle();
    expect(sent).toEqual([]);
  });

  it('keeps the jobs apart', async () => {
    answers = ['offline'];
    outboxOfJob('job', () => undefined).add(item('one'));
    await settle();
    expect(outboxOfJob('other', () => undefined).items()).toEqual([]);
  });
});

describe('what the shop refuses', () => {
  const refusal = (code: string, status: number): Answer => ({
    status,
    error: { code, message: `It was ${code}.` },
  });

  it('stays with the reason until somebody drops it, and holds up nothing', async () => {
    answers = [refusal('handed-over', 409)];
    const outbox = outboxOfJob('job', () => undefined);
    outbox.add(item('one'));
    outbox.add(item('two'));
    await settle();
    expect(outbox.items()).toMatchObject([{ key: 'one', refused: 'It was handed-over.' }]);
    expect(sent.map(({ key }) => key)).toEqual(['one', 'two']);
    outbox.dismiss('one');
    expect(outbox.items()).toEqual([]);
  });

  it('for want of a session only waits: it goes out after signing in', async () => {
    answers = [refusal('not-signed-in', 401)];
    const outbox = outboxOfJob('job', () => undefined);
    outbox.add(item('one'));
    await settle();
    expect(outbox.items()).toMatchObject([{ key: 'one' }]);
    expect(outbox.items()[0]?.refused).toBeUndefined();
    await vi.advanceTimersByTimeAsync(5000);
    expect(outbox.items()).toEqual([]);
  });

  it('because the server stumbled is sent again with the same key', async () => {
    answers = [refusal('server-error', 500)];
    const outbox = outboxOfJob('job', () => undefined);
    outbox.add(item('one'));
    await vi.advanceTimersByTimeAsync(5000);
    expect(sent.map(({ key }) => key)).toEqual(['one', 'one']);
  });
});

describe('who listens', () => {
  it('hears of every change, until it stops listening', async () => {
    const outbox = outboxOfJob('job', () => undefined);
    const heard = vi.fn();
    const stop = outbox.subscribe(heard);
    outbox.add(item('one'));
    await settle();
    expect(heard).toHaveBeenCalledTimes(2); // in, and out
    stop();
    outbox.add(item('two'));
    await settle();
    expect(heard).toHaveBeenCalledTimes(2);
  });

  it('takes an answer that is no visit for a stumble, and sends it again', async () => {
    vi.stubGlobal('fetch', () => Promise.resolve(Response.json({ stored: true })));
    const stored = vi.fn();
    const outbox = outboxOfJob('job', stored);
    outbox.add(item('one'));
    await settle();
    expect(stored).not.toHaveBeenCalled();
    expect(outbox.items()).toMatchObject([{ key: 'one' }]);
  });

  it('gets the view that came back', async () => {
    const stored = vi.fn();
    outboxOfJob('job', stored).add(item('one'));
    await settle();
    expect(stored).toHaveBeenCalledWith(visit);
  });
});
