import { afterAll, inject } from 'vitest';
import { closeDatabase } from '../../src/data/database';

process.env.DATABASE_URL = inject('databaseUrl');
afterAll(closeDatabase);
