import { createStore, delMany, entries, get, set, type UseStore } from 'idb-keyval';
import type { VisitView } from '../../contract/views';

/**
 * Jobs as this device saw them last, so that one that is opened again without a connection shows all that the shop had
 * confirmed, not what the page was made with. Signing out clears them.
 */

/** So many of the latest stay. */
const mostKept = 40;

interface KeptView {
  atMs: number;
  view: VisitView;
}

let opened: UseStore | undefined;
const store = (): UseStore => (opened ??= createStore('hacienda-views', 'views'));

export async function keepView(view: VisitView): Promise<void> {
  await quietly(async () => {
    await set(view.id, { atMs: Date.now(), view } satisfies KeptView, store());
    const all = await entries<string, KeptView>(store());
    const oldest = all.sort(([, a], [, b]) => b.atMs - a.atMs).slice(mostKept);
    await delMany(
      oldest.map(([id]) => id),
      store(),
    );
  });
}

export const keptView = (id: string): Promise<VisitView | undefined> =>
  quietly(async () => (await get<KeptView>(id, store()))?.view);

async function quietly<Value>(work: () => Promise<Value>): Promise<Value | undefined> {
  try {
    return await work();
  } catch {
    return undefined;
  }
}
