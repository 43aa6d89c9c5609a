import { setImmediate } from 'node:timers/promises';
import { afterEach } from 'vitest';

// Long calculations one after another leave the runner's own messages unread, and on a slow machine it gives up on
// them. A turn of the event loop after each test lets them through.
afterEach(async () => {
  await setImmediate();
});
