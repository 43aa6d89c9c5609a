import type { Observation } from '../../core/job';
import { observationKinds } from '../../core/observation';
import type { Problem } from '../../core/result';
import type { VisitView } from '../../core/visit/view';
import { ask } from '../api';

/**
 * What was recorded on this device and not yet confirmed by the shop. It is kept in the browser's
 * storage, so that neither a dropped connection nor a closed page loses a reading, and sent in order.
 * Each has the key it was born with: sent twice, it is stored once.
 */
export interface Waiting {
  key: string;
  observation: Observation;
  replaces?: string;
  /** Why the shop refused it: it waits for a person, not for the connection. */
  refused?: string;
}

export interface Outbox {
  add: (item: Waiting) => void;
  dismiss: (key: string) => void;
  items: () => readonly Waiting[];
  subscribe: (callback: () => void) => () => void;
  flush: () => Promise<void>;
}

const retryMs = 1500;

export function createOutbox(
  jobId: string,
  onStored: (view: VisitView) => void,
  onWaiting: (problem: Problem) => void = () => undefined,
): Outbox {
  const place = `hacienda.outbox.${jobId}`;
  const listeners = new Set<() => void>();
  let items: readonly Waiting[] = load(place);
  let sending = false;
  let timer: ReturnType<typeof setTimeout> | undefined;

  const set = (next: readonly Waiting[]) => {
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
        const { key, observation, replaces } = next;
        const stored = await ask('record', {
          id: jobId,
          body: { key, observation, ...(replaces && { replaces }) },
        });
        if (stored.ok) {
          // First it is in the visit, then no longer on its way: at no time is it neither.
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

const unsent = (items: readonly Waiting[]): Waiting | undefined =>
  items.find(({ refused }) => refused === undefined);

/** Troubles of the connection, the server or the session pass; what the shop refused does not. */
const mayPass = ({ code }: Problem): boolean => ['offline', 'server-error', 'not-signed-in'].includes(code);

/** What this device kept. Whatever else is found there is no reading, and is left out; the shop parses the rest. */
function load(place: string): readonly Waiting[] {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(place) ?? '[]');
    return Array.isArray(kept) ? kept.filter(isWaiting) : [];
  } catch {
    return [];
  }
}

function isWaiting(item: unknown): item is Waiting {
  if (typeof item !== 'object' || item === null || !('key' in item) || !('observation' in item)) return false;
  const { key, observation } = item;
  return (
    typeof key === 'string' &&
    typeof observation === 'object' &&
    observation !== null &&
    'kind' in observation &&
    observationKinds.some((kind) => kind === observation.kind) &&
    'at' in observation &&
    typeof observation.at === 'string'
  );
}
