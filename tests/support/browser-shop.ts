import { test as base } from '@playwright/test';
import { copyOfShop } from './copied-shop';
import type { Shop } from './shop';

/** The shop of the test that runs in this process: one at a time. */
let shop: Shop | undefined;

/** Of the shop this test has. */
export const address = (): string => shop?.address ?? '';

/** Ends the server of this test's shop and starts it again, as after a crash. */
export const restartServer = (): Promise<void> => shop?.restartServer() ?? Promise.resolve();

/** A browser in which somebody of this role is signed in, in whichever shop: all are copies of one. */
export const stateOf = (role: string): string => `test-results/signed-in-${role}.json`;

/** A test in the browser: with a shop of its own, gone when it ends, and a browser context of its own, signed in. */
export const test = base.extend<{ devices: boolean; own: void }>({
  /** Whether the shop has simulated cars, a tool, a lead and the weather; else what stands there is typed. */
  devices: [true, { option: true }],
  storageState: stateOf('technician'),
  own: [
    async ({ devices }, use) => {
      shop = await copyOfShop({ devices });
      await use();
      await shop.close();
      shop = undefined;
    },
    { auto: true },
  ],
});

export { expect } from '@playwright/test';
