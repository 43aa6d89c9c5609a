import { defineConfig } from 'vitest/config';

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
          testTimeout: 300_000,
          hookTimeout: 300_000,
        },
      },
    ],
  },
});
