import { createStore, del, entries, set, type UseStore } from 'idb-keyval';
import { mayPass } from '../contract/refusals';
import type { Problem, Result } from '../core/result';

/** Something entered on this device: its key is made once, so that sent twice it is stored once. */
export interface Kept {
  key: string;
  /** When it was entered, ms: what was entered first goes out first. */
  addedMs?: number;
  /** Who entered it: it goes out under no other name. */
  by?: { id: string; name: string };
  /** Why the shop refused it: it waits for a person, not for the connection. */
  refused?: string;
}

/**
 * What was entered on this device and not yet confirmed by the shop. It is kept in the browser's database, one store for
 * all its pages, so that neither a dropped connection nor a closed page loses it; whichever page has the connection first
 * sends it, once, each entry with a fate of its own.
 */
export interface Outbox<Item extends Kept> {
  add: (item: Item) => void;
  dismiss: (key: string) => void;
  items: () => readonly Item[];
  subscribe: (callback: () => void) => () => void;
  flush: () => Promise<void>;
  /** Once what an earlier page left behind is there. */
  ready: Promise<void>;
  close: () => void;
}

interface OutboxOf<Item extends Kept, Answer> {
  /** Its name in the browser's database. */
  place: string;
  /** Who is signed in on this page. */
  person?: { id: string; name: string } | undefined;
  /** Nothing goes out before what was entered before it. */
  inOrder?: boolean;
  /** Whatever else is found there is left out; the shop parses the rest. */
  isItem: (found: object) => boolean;
  send: (item: Item) => Promise<Result<Answer>>;
  onStored: (answer: Answer) => void;
  onWaiting?: (problem: Problem) => void;
}

/** What one page tells the others of this browser. */
type News = { place: string; answer?: unknown };

const retryMs = 1500;

export function createOutbox<Item extends Kept, Answer>({
  place,
  person,
  inOrder = false,
  isItem,
  send,
  onStored,
  onWaiting = () => undefined,
}: OutboxOf<Item, Answer>): Outbox<Item> {
  const news = typeof BroadcastChannel === 'undefined' ? undefined : new BroadcastChannel('hacienda.outbox');
  const entries = entriesAt(place, isItem as (found: object) => found is Item);
  let sending = false;
  let again = false;
  let timer: ReturnType<typeof setTimeout> | undefined;

  const tell = (answer?: Answer) => news?.postMessage({ place, answer } satisfies News);
  news?.addEventListener('message', ({ data }: MessageEvent<News>) => {
    if (data.place !== place) return;
    // The page that sent it has the answer from the shop, and this one has it from there.
    if (data.answer !== undefined) onStored(data.answer as Answer);
    void entries.reload();
  });
  const ready = entries.reload();

  /** Sends one; says whether others may be tried after it. */
  const sendOne = async (item: Item): Promise<'sent' | 'refused' | 'later' | 'offline'> => {
    const stored = await send(item);
    if (stored.ok) {
      // First it is in the shop's answer, then no longer on its way: at no time is it neither.
      onStored(stored.value);
      await entries.forget(item.key);
      tell(stored.value);
      return 'sent';
    }
    if (mayPass(stored.problem)) {
      onWaiting(stored.problem);
      return stored.problem.code === 'server-error' || stored.problem.code === 'busy' ? 'later' : 'offline';
    }
    // What a schema says of a field is for programs; what others changed meanwhile is for people.
    const refused =
      (stored.problem.code === 'stale' && stored.problem.issues?.[0]?.message) || stored.problem.message;
    await entries.put({ ...item, refused });
    tell();
    return 'refused';
  };
  const sendAll = async (): Promise<void> => {
    await entries.reload();
    const tried = new Set<string>();
    const next = () => entries.items().find((item) => isMine(item, person) && !tried.has(item.key));
    let left = false;
    for (let item = next(); item; item = next()) {
      tried.add(item.key);
      const fate = await sendOne(item);
      if (fate === 'sent' || fate === 'refused') continue;
      left = true;
      if (fate === 'offline' || inOrder) break;
    }
    if (left) timer = setTimeout(() => void flush(), retryMs);
  };

  async function flush(): Promise<void> {
    if (sending) {
      again = true;
      return;
    }
    sending = true;
    clearTimeout(timer);
    try {
      await ready;
      do {
        again = false;
        // One page at a time sends: the others wait for their turn, and find it done.
        await alone(place, sendAll);
      } while (again);
    } finally {
      sending = false;
    }
  }

  return {
    add: (item) => {
      void entries.put({ ...item, addedMs: nextMs(), ...(person && !item.by && { by: person }) }).then(() => {
        tell();
        return flush();
      });
    },
    dismiss: (key) => void entries.forget(key).then(() => tell()),
    items: entries.items,
    subscribe: entries.subscribe,
    flush,
    ready,
    close: () => {
      clearTimeout(timer);
      news?.close();
    },
  };
}

/** Places of names that begin so where something waits. */
export async function waitingPlaces(beginning: string): Promise<string[]> {
  const store = browserStore();
  const all = store && (await quietly(() => entries<string, unknown>(store)));
  const names = (all ?? []).map(([name]) => name).filter((name) => name.startsWith(beginning));
  return [...new Set(names.map((name) => name.slice(0, name.lastIndexOf(' '))))];
}

/** What waits at a place, on the screen and in the browser's database alike. */
function entriesAt<Item extends Kept>(place: string, isItem: (found: object) => found is Item) {
  const listeners = new Set<() => void>();
  const store = browserStore();
  let items: readonly Item[] = [];
  /** On its way into the database. */
  const unwritten = new Map<string, Item>();
  /** Done with, and on its way out of it. */
  const gone = new Set<string>();

  const show = (next: readonly Item[]) => {
    items = next;
    for (const listener of listeners) listener();
  };
  return {
    items: () => items,
    subscribe: (callback: () => void) => {
      listeners.add(callback);
      return () => listeners.delete(callback);
    },
    /** Shows what is in the database, and what is on its way into it. */
    reload: async () => {
      const kept = (await load(store, place, isItem)).filter(({ key }) => !gone.has(key));
      const known = new Set(kept.map(({ key }) => key));
      show([...kept, ...[...unwritten.values()].filter(({ key }) => !known.has(key))]);
    },
    /** Shows it at once, in the place of what has its key, and writes it. */
    put: async (item: Item) => {
      const isThere = items.some(({ key }) => key === item.key);
      show(isThere ? items.map((other) => (other.key === item.key ? item : other)) : [...items, item]);
      unwritten.set(item.key, item);
      await quietly(() => set(nameOf(place, item.key), item, store));
      // A browser that keeps nothing has it as long as the page is open.
      if (store) unwritten.delete(item.key);
    },
    forget: async (key: string) => {
      unwritten.delete(key);
      gone.add(key);
      show(items.filter((item) => item.key !== key));
      await quietly(() => del(nameOf(place, key), store));
    },
  };
}

/** Moments that never repeat, so that two entries of one millisecond keep their order. */
let lastMs = 0;
const nextMs = (): number => (lastMs = Math.max(Date.now(), lastMs + 0.001));

/** It waits for the connection, and for nobody else. */
const isMine = ({ refused, by }: Kept, person: Kept['by']): boolean =>
  refused === undefined && (by === undefined || person === undefined || by.id === person.id);

const nameOf = (place: string, key: string): string => `${place} ${key}`;

let opened: UseStore | undefined;
const browserStore = (): UseStore | undefined =>
  typeof indexedDB === 'undefined' ? undefined : (opened ??= createStore('hacienda-outbox', 'entries'));

async function load<Item extends Kept>(
  store: UseStore | undefined,
  place: string,
  isItem: (found: object) => found is Item,
): Promise<Item[]> {
  if (!store) return [];
  const all = (await quietly(() => entries<string, unknown>(store))) ?? [];
  return all
    .flatMap(([name, found]) =>
      name.startsWith(`${place} `) &&
      typeof found === 'object' &&
      found !== null &&
      'key' in found &&
      typeof found.key === 'string' &&
      isItem(found)
        ? [found]
        : [],
    )
    .sort((a, b) => (a.addedMs ?? 0) - (b.addedMs ?? 0));
}

/** With the lock of this place, where the browser has locks. */
async function alone(place: string, work: () => Promise<void>): Promise<void> {
  if (typeof navigator === 'undefined' || !('locks' in navigator)) return work();
  await navigator.locks.request(`hacienda.outbox ${place}`, work);
}

/** Private windows and full disks keep nothing: then it is as safe as the page is open. */
async function quietly<Value>(work: () => Promise<Value>): Promise<Value | undefined> {
  try {
    return await work();
  } catch {
    return undefined;
  }
}
