import { defineConfig } from '@playwright/test';

/** Debian's Chromium without its windows, which takes a fifth less. The flags keep it from reaching out on its own. */
export const chromium = {
  executablePath: '/usr/bin/chromium-headless-shell',
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
  ],
};

export default defineConfig<{ devices: boolean }>({
  // Every test has a shop of its own.
  fullyParallel: true,
  testDir: 'tests/e2e',
  globalSetup: './tests/support/open-shop.ts',
  // More at a time than two processors do keep one another waiting until something is taken for missing.
  workers: 3,
  // Long enough for a machine that is busy with other work: a test that hangs is told all the same.
  timeout: 300_000,
  expect: { timeout: 20_000 },
  // A machine of others may stall; what passed only then is told by name.
  retries: process.env.CI ? 2 : 0,
  reporter: [['list'], ['json', { outputFile: 'test-results/e2e.json' }]],
  use: {
    browserName: 'chromium',
    launchOptions: chromium,
    viewport: { width: 1280, height: 800 },
    screenshot: 'only-on-failure',
  },
  projects: [
    { name: 'by-hand', testDir: 'tests/e2e/by-hand', use: { devices: false } },
    ...['visit', 'relearn', 'views'].map((name) => ({ name, testDir: `tests/e2e/${name}` })),
  ],
});
