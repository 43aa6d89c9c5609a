import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { TestProject } from 'vitest/node';
import { startCluster, wipe } from '../../src/cli/cluster';
import { closeDatabase } from '../../src/data/database';
import { migrate } from '../../src/data/migrations';

declare module 'vitest' {
  export interface ProvidedContext {
    databaseUrl: string;
  }
}

/** A PostgreSQL of the tests' own, gone when they are. */
export default async function setup({ provide }: TestProject): Promise<() => Promise<void>> {
  const folder = mkdtempSync(join(tmpdir(), 'hacienda-test-'));
  const cluster = await startCluster(folder);
  process.env.DATABASE_URL = cluster.url;
  await migrate();
  await closeDatabase();
  provide('databaseUrl', cluster.url);
  return async () => {
    await cluster.stop();
    wipe(folder);
  };
}
