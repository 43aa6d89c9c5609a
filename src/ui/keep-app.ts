/** Has the browser keep the app, and this page of it, on the device: it opens without a connection then. */
export function keepAppHere(): void {
  if (!('serviceWorker' in navigator) || !import.meta.env.PROD) return;
  window.addEventListener('load', () => {
    void navigator.serviceWorker
      .register('/sw.js')
      .then(() => navigator.serviceWorker.ready)
      .then(({ active }) => {
        if (location.pathname.startsWith('/sign-in')) return;
        for (const keep of [location.pathname, '/api/parts']) active?.postMessage({ keep });
      })
      // Without it the app works as long as there is a connection.
      .catch(() => undefined);
  });
}

/** Takes private pages and jobs off this device; what was entered and not sent yet stays, under the name of who entered it. */
export async function forgetPagesHere(): Promise<void> {
  await caches.delete('pages').catch(() => false);
  indexedDB.deleteDatabase('hacienda-views');
}
