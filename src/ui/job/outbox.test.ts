import 'fake-indexeddb/auto';
import { afterEach, beforeAll, beforeEach, describe, expect, it, vi } from 'vitest';
import { gauge, jobWith, minute } from '../../../tests/support/car';
import type { VisitView } from '../../contract/views';
import { createStore, set } from 'idb-keyval';
import { outboxOfJob, withWaiting, type Waiting } from './outbox';

/** A connection that can be cut, as far as the outbox sees it. The database is fake-indexeddb's, after the W3C's Indexed Database API 3.0. */
type Answer =
  | 'stored'
  | 'offline'
  | {
      status: number;
      error: { code: string; message: string; issues?: { path: string; message: string }[] };
    };

const visit: VisitView = {
  id: '0190a000-0000-7000-8000-000000000001',
  number: 1,
  vehicleId: '0190a000-0000-7000-8000-000000000002',
  version: 1,
  revision: 2,
  state: 'open',
  job: jobWith([]),
  codes: {},
  devices: {
    tool: false,
    lead: false,
    ownTool: false,
    ownLead: false,
    takesThresholds: false,
    practice: false,
  },
  gauges: [],
};

let sent: { key: string }[];
let answers: Answer[];
const item = (key: string): Waiting => ({ key, observation: gauge(1, 'LF', 230) });
/** The database answers in turns of the event loop. */
const turns = async (count = 40) => {
  for (let n = 0; n < count; n += 1) {
    await new Promise((resolve) => setImmediate(resolve));
    await vi.advanceTimersByTimeAsync(0);
  }
};
const settle = () => turns();
const later = async (ms: number) => {
  for (let passed = 0; passed < ms; passed += 500) {
    await vi.advanceTimersByTimeAsync(500);
    await turns(20);
  }
};
/** Every test has a job of its own: the database outlives it, as it should. */
let job = '';
let jobs = 0;

// What speaks to the shop is fetched when first needed.
beforeAll(() => import('../request'));
beforeEach(() => {
  vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] });
  job = `job-${(jobs += 1)}`;
  sent = [];
  answers = [];
  vi.stubGlobal('fetch', (_: string, init: { body?: string }) => {
    if (init.body === undefined) return Promise.resolve(Response.json(visit));
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
    const outbox = outboxOfJob(job, () => undefined);
    outbox.add(item('one'));
    outbox.add(item('two'));
    await settle();
    expect(outbox.items().map(({ key }) => key)).toEqual(['one', 'two']);
    expect(sent).toEqual([]);
    await later(5000);
    expect(sent.map(({ key }) => key)).toEqual(['one', 'two']);
    expect(outbox.items()).toEqual([]);
  });

  it('survives that the page is closed', async () => {
    answers = ['offline', 'offline', 'offline'];
    outboxOfJob(job, () => undefined).add(item('one'));
    await settle();
    const again = outboxOfJob(job, () => undefined);
    await again.ready;
    expect(again.items().map(({ key }) => key)).toEqual(['one']);
    answers = [];
    await later(3000);
    expect(sent.map(({ key }) => key)).toContain('one');
    const third = outboxOfJob(job, () => undefined);
    await third.ready;
    expect(third.items()).toEqual([]);
  });

  it('leaves out what is no reading', async () => {
    const store = createStore('hacienda-outbox', 'entries');
    for (const [n, kept] of [{ a: 1 }, 'no entry', { key: 7, observation: {} }, { key: 'k' }].entries())
      await set(`job ${job} ${n}`, kept, store);
    const outbox = outboxOfJob(job, () => undefined);
    await settle();
    expect(outbox.items()).toEqual([]);
    expect(sent).toEqual([]);
  });

  it('keeps the jobs apart', async () => {
    answers = ['offline'];
    outboxOfJob(job, () => undefined).add(item('one'));
    await settle();
    const other = outboxOfJob('other', () => undefined);
    await other.ready;
    expect(other.items()).toEqual([]);
  });
});

describe('what the shop refuses', () => {
  const refusal = (code: string, status: number): Answer => ({
    status,
    error: { code, message: `It was ${code}.` },
  });

  it('stays with the reason until somebody drops it, and holds up nothing', async () => {
    answers = [refusal('handed-over', 409)];
    const outbox = outboxOfJob(job, () => undefined);
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
    const outbox = outboxOfJob(job, () => undefined);
    outbox.add(item('one'));
    await settle();
    expect(outbox.items()).toMatchObject([{ key: 'one' }]);
    expect(outbox.items()[0]?.refused).toBeUndefined();
    await later(5000);
    expect(outbox.items()).toEqual([]);
  });

  it('because the server stumbled is sent again with the same key', async () => {
    answers = [refusal('server-error', 500)];
    const outbox = outboxOfJob(job, () => undefined);
    outbox.add(item('one'));
    await later(5000);
    expect(sent.map(({ key }) => key)).toEqual(['one', 'one']);
  });
});

describe('who listens', () => {
  it('hears of every change, until it stops listening', async () => {
    const outbox = outboxOfJob(job, () => undefined);
    const heard = vi.fn();
    const stop = outbox.subscribe(heard);
    outbox.add(item('one'));
    await settle();
    const times = heard.mock.calls.length;
    expect(times).toBeGreaterThanOrEqual(2); // in, and out
    stop();
    outbox.add(item('two'));
    await settle();
    expect(heard).toHaveBeenCalledTimes(times);
  });

  it('takes an answer that is no visit for a stumble, and sends it again', async () => {
    vi.stubGlobal('fetch', () => Promise.resolve(Response.json({ stored: true })));
    const stored = vi.fn();
    const outbox = outboxOfJob(job, stored);
    outbox.add(item('one'));
    await settle();
    expect(stored).not.toHaveBeenCalled();
    expect(outbox.items()).toMatchObject([{ key: 'one' }]);
  });

  it('gets the view that came back', async () => {
    const stored = vi.fn();
    outboxOfJob(job, stored).add(item('one'));
    await settle();
    expect(stored).toHaveBeenCalledWith(visit);
  });
});

describe('two pages of one browser', () => {
  it('share one store: what either took is sent, once', async () => {
    answers = ['offline', 'offline', 'offline', 'offline'];
    const [one, two] = [outboxOfJob(job, () => undefined), outboxOfJob(job, () => undefined)];
    one.add(item('left'));
    two.add(item('right'));
    await later(8000);
    expect([...new Set(sent.map(({ key }) => key))].sort()).toEqual(['left', 'right']);
    await later(1000);
    const after = outboxOfJob(job, () => undefined);
    await after.ready;
    expect(after.items()).toEqual([]);
  });
});

describe('one person after the other on one device', () => {
  const [ines, pilar] = [
    { id: '0190a000-0000-7000-8000-00000000000a', name: 'Ines' },
    { id: '0190a000-0000-7000-8000-00000000000b', name: 'Pilar' },
  ];

  it('sends nothing under the name of the next', async () => {
    answers = ['offline'];
    const first = outboxOfJob(job, () => undefined, undefined, ines);
    first.add(item('one'));
    await settle();
    first.close();
    const second = outboxOfJob(job, () => undefined, undefined, pilar);
    second.add(item('two'));
    await later(4000);
    expect(sent.map(({ key }) => key)).toEqual(['two']);
    expect(second.items()).toMatchObject([{ key: 'one', by: ines }]);
    const back = outboxOfJob(job, () => undefined, undefined, ines);
    await back.flush();
    await later(1000);
    expect(sent.map(({ key }) => key)).toEqual(['two', 'one']);
  });
});

describe('each entry has a fate of its own', () => {
  it('one the server stumbles over holds up none behind it', async () => {
    answers = [{ status: 500, error: { code: 'server-error', message: 'It stumbled.' } }];
    const outbox = outboxOfJob(job, () => undefined);
    outbox.add(item('one'));
    outbox.add(item('two'));
    await settle();
    expect(sent.map(({ key }) => key).slice(0, 2)).toEqual(['one', 'two']);
    await later(4000);
    expect(outbox.items()).toEqual([]);
  });

  it('a correction on an older version is made again where nobody touched the same, and told where somebody did', async () => {
    const stale = (path: string): Answer => ({
      status: 409,
      error: { code: 'stale', message: 'Changed.', issues: [{ path, message: 'Ada changed it' }] },
    });
    const placard = [{ position: 'front' as const, coldKPa: 230 }];
    answers = [stale('complaint')];
    const outbox = outboxOfJob(job, () => undefined);
    outbox.add({ key: 'edit', changes: { placard }, version: 1 });
    await later(1000);
    expect(outbox.items()).toEqual([]);
    answers = [stale('placard')];
    outbox.add({ key: 'other', changes: { placard }, version: 1 });
    await later(1000);
    expect(outbox.items()).toMatchObject([{ key: 'other', refused: 'Ada changed it' }]);
  });
});

describe('the job with what is on its way', () => {
  it('has the reading and the placard that were entered without a connection', () => {
    const placard = [{ position: 'front' as const, coldKPa: 241 }];
    const shown = withWaiting(jobWith([]), [
      item('one'),
      { key: 'edit', changes: { placard, odometerKm: 81_000, complaint: 'pulls left' }, version: 1 },
      {
        key: 'serviced',
        service: { wheel: 'RF', at: minute(2), done: ['kit'] },
        by: { id: 'i', name: 'Ines' },
      },
      { ...item('gone'), refused: 'handed over' },
    ]);
    expect(shown.sensorServices).toEqual([
      { key: 'serviced', wheel: 'RF', at: minute(2), done: ['kit'], by: 'Ines' },
    ]);
    expect(shown.observations).toMatchObject([{ key: 'one', kPa: 230 }]);
    expect(shown).toMatchObject({
      placard,
      vehicle: { odometerKm: 81_000 },
      visit: { complaint: 'pulls left' },
    });
  });
});
