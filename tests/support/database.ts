import { afterAll, inject } from 'vitest';
import { closeDatabase } from '../../src/data/database';
import { closeNews } from '../../src/data/notifications';

process.env.DATABASE_URL = inject('databaseUrl');
// As the start command makes one.
process.env.HACIENDA_KEY = Buffer.alloc(32, 7).toString('base64');
afterAll(async () => {
  await closeNews();
  await closeDatabase();
});
