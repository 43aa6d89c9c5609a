import type { Problem, Result } from '../core/result';

/** Something entered on this device: its key is made once, so that sent twice it is stored once. */
export interface Kept {
  key: string;
  /** Why the shop refused it: it waits for a person, not for the connection. */
  refused?: string;
}

/**
 * What was entered on this device and not yet confirmed by the shop. It is kept in the browser's storage, so that
 * neither a dropped connection nor a closed page loses it, and sent in order.
 */
export interface Outbox<Item extends Kept> {
  add: (item: Item) => void;
  dismiss: (key: string) => void;
  items: () => readonly Item[];
  subscribe: (callback: () => void) => () => void;
  flush: () => Promise<void>;
}

interface OutboxOf<Item extends Kept, Answer> {
  /** Its name in the browser's storage. */
  place: string;
  /** Whatever else is found there is left out; the shop parses the rest. */
  isItem: (found: object) => boolean;
  send: (item: Item) => Promise<Result<Answer>>;
  onStored: (answer: Answer) => void;
  onWaiting?: (problem: Problem) => void;
}

const retryMs = 1500;

export function createOutbox<Item extends Kept, Answer>({
  place,
  isItem,
  send,
  onStored,
  onWaiting = () => undefined,
}: OutboxOf<Item, Answer>): Outbox<Item> {
  const listeners = new Set<() => void>();
  let items: readonly Item[] = load(place, isItem);
  let sending = false;
  let timer: ReturnType<typeof setTimeout> | undefined;

  const set = (next: readonly Item[]) => {
    items = next;
    if (next.length > 0) localStorage.setItem(place, JSON.stringify(next));
    else localStorage.removeItem(place);
    for (const listener of listeners) listener();
  };

  async function flush(): Promise<void> {
    if (sending) return;
    sending = true;
    clearTimeout(timer);
    try {
      for (let next = unsent(items); next; next = unsent(items)) {
        const { key } = next;
        const stored = await send(next);
        if (stored.ok) {
          // First it is in the shop's answer, then no longer on its way: at no time is it neither.
          onStored(stored.value);
          set(items.filter((item) => item.key !== key));
        } else if (mayPass(stored.problem)) {
          onWaiting(stored.problem);
          timer = setTimeout(() => void flush(), retryMs);
          return;
        } else {
          const refused = stored.problem.issues?.[0]?.message ?? stored.problem.message;
          set(items.map((item) => (item.key === key ? { ...item, refused } : item)));
        }
      }
    } finally {
      sending = false;
    }
  }

  return {
    add: (item) => {
      set([...items, item]);
      void flush();
    },
    dismiss: (key) => set(items.filter((item) => item.key !== key)),
    items: () => items,
    subscribe: (callback) => {
      listeners.add(callback);
      return () => listeners.delete(callback);
    },
    flush,
  };
}

const unsent = <Item extends Kept>(items: readonly Item[]): Item | undefined =>
  items.find(({ refused }) => refused === undefined);

/** Troubles of the connection, the server or the session pass; what the shop refused does not. */
const mayPass = ({ code }: Problem): boolean => ['offline', 'server-error', 'not-signed-in'].includes(code);

function load<Item extends Kept>(place: string, isItem: (found: object) => boolean): readonly Item[] {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(place) ?? '[]');
    if (!Array.isArray(kept)) return [];
    return kept.filter(
      (found: unknown): found is Item =>
        typeof found === 'object' &&
        found !== null &&
        'key' in found &&
        typeof found.key === 'string' &&
        isItem(found),
    );
  } catch {
    return [];
  }
}
