import { defineConfig } from 'vitest/config';

/** A machine of others may stall; what passed only when it was tried again is told by name. */
const retry = process.env.CI ? 1 : 0;

export default defineConfig({
  test: {
    // One file of a project after the other: the projects run side by side.
    maxWorkers: 1,
    minWorkers: 1,
    projects: [
      {
        test: {
          name: 'unit',
          include: ['src/**/*.test.ts'],
          environment: 'node',
          setupFiles: ['tests/support/turn.ts'],
          // Long enough for a machine that is busy with other work: a test that hangs is told all the same.
          testTimeout: 300_000,
        },
      },
      {
        test: {
          name: 'integration',
          include: ['tests/integration/**/*.test.ts'],
          environment: 'node',
          globalSetup: ['tests/support/cluster.ts'],
          setupFiles: ['tests/support/database.ts'],
          poolOptions: { forks: { singleFork: true } },
          retry,
          testTimeout: 300_000,
          hookTimeout: 300_000,
        },
      },
      {
        // Servers that are started, asked and killed as processes: every file has its own, with their database.
        test: {
          name: 'servers',
          include: ['tests/servers/**/*.test.ts'],
          environment: 'node',
          retry,
          testTimeout: 300_000,
          hookTimeout: 300_000,
        },
      },
    ],
  },
});
