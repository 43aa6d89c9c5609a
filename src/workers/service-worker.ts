import { ExpirationPlugin } from 'workbox-expiration';
import { cleanupOutdatedCaches, precacheAndRoute, type PrecacheEntry } from 'workbox-precaching';
import { NavigationRoute, registerRoute } from 'workbox-routing';
import { NetworkFirst } from 'workbox-strategies';

/**
 * Keeps the app on the device: its scripts, styles and fonts, and the pages that were opened, so that a job can be gone
 * on with, reloaded and opened again without a connection. What is entered meanwhile is kept by the page itself.
 */

/** Written in when the app is built: everything it is made of. */
declare const appFiles: PrecacheEntry[];

/** What of the worker's own scope is used here. */
interface Worker {
  skipWaiting: () => Promise<void>;
  clients: { claim: () => Promise<void> };
  addEventListener: (
    type: string,
    listen: (event: { data?: unknown; waitUntil: (work: Promise<unknown>) => void }) => void,
  ) => void;
}
const worker = globalThis as unknown as Worker;

const pages = 'pages';
/** A page that does not answer for so long is shown as it was, s. */
const patienceS = 4;

precacheAndRoute(appFiles);
cleanupOutdatedCaches();

const kept = new NetworkFirst({
  cacheName: pages,
  networkTimeoutSeconds: patienceS,
  plugins: [
    new ExpirationPlugin({ maxEntries: 80, maxAgeSeconds: 14 * 86_400 }),
    {
      // A page that led to signing in is not the page that was asked for.
      cacheWillUpdate: ({ response }) =>
        Promise.resolve(response.status === 200 && !response.redirected ? response : null),
    },
  ],
});
registerRoute(new NavigationRoute(kept, { denylist: [/^\/api\//, /^\/sign-in/] }));
// The catalogue: what is serviced at a wheel is serviced without a connection too.
registerRoute(({ url }) => url.pathname === '/api/parts', kept);

worker.addEventListener('install', (event) => event.waitUntil(worker.skipWaiting()));
worker.addEventListener('activate', (event) => event.waitUntil(worker.clients.claim()));
worker.addEventListener('message', (event) => {
  const { data } = event;
  if (typeof data !== 'object' || data === null || !('keep' in data) || typeof data.keep !== 'string') return;
  // The page that brought this worker along was loaded without it.
  const path = data.keep;
  event.waitUntil(
    caches
      .open(pages)
      .then(async (cache) => {
        const page = await fetch(path, { credentials: 'same-origin' });
        if (page.ok && !page.redirected) await cache.put(path, page);
      })
      .catch(() => undefined),
  );
});
