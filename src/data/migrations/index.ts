import { SequelizeStorage, Umzug } from 'umzug';
import type { QueryInterface } from 'sequelize';
import { databaseUrl, patientDatabase } from '../database';
import { prepareSchema } from '../shops';
import * as first from './0001-first';
import * as instruments from './0002-instruments';
import * as confirmations from './0003-confirmations';
import * as asRead from './0004-as-read';
import * as revisions from './0005-revisions';
import * as names from './0006-names';
import * as procedures from './0007-procedures';
import * as runs from './0008-runs';
import * as parts from './0009-parts';
import * as flags from './0010-flags';
import * as services from './0011-services';
import * as thresholds from './0012-thresholds';
import * as shopSurroundings from './0013-shop-surroundings';
import * as lifeOfAJob from './0014-life-of-a-job';
import * as pins from './0015-pins';
import * as byFile from './0016-by-file';
import * as doors from './0017-doors';
import * as news from './0018-news';
import * as memory from './0019-memory';
import * as wheelSets from './0020-wheel-sets';
import * as followUpsByJob from './0021-follow-ups-by-job';
import * as openDoors from './0022-open-doors';
import * as secondFactor from './0023-second-factor';
import * as peopleNews from './0024-people-news';
import * as marks from './0025-marks';
import * as backups from './0026-backups';
import * as proposals from './0027-proposals';

interface Migration {
  up: (schema: QueryInterface) => Promise<void>;
  down: (schema: QueryInterface) => Promise<void>;
}

/** In order. A migration that has run anywhere is never changed; what follows is a new one. */
const migrations: { name: string; migration: Migration }[] = [
  { name: '0001-first', migration: first },
  { name: '0002-instruments', migration: instruments },
  { name: '0003-confirmations', migration: confirmations },
  { name: '0004-as-read', migration: asRead },
  { name: '0005-revisions', migration: revisions },
  { name: '0006-names', migration: names },
  { name: '0007-procedures', migration: procedures },
  { name: '0008-runs', migration: runs },
  { name: '0009-parts', migration: parts },
  { name: '0010-flags', migration: flags },
  { name: '0011-services', migration: services },
  { name: '0012-thresholds', migration: thresholds },
  { name: '0013-shop-surroundings', migration: shopSurroundings },
  { name: '0014-life-of-a-job', migration: lifeOfAJob },
  { name: '0015-pins', migration: pins },
  { name: '0016-by-file', migration: byFile },
  { name: '0017-doors', migration: doors },
  { name: '0018-news', migration: news },
  { name: '0019-memory', migration: memory },
  { name: '0020-wheel-sets', migration: wheelSets },
  { name: '0021-follow-ups-by-job', migration: followUpsByJob },
  { name: '0022-open-doors', migration: openDoors },
  { name: '0023-second-factor', migration: secondFactor },
  { name: '0024-people-news', migration: peopleNews },
  { name: '0025-marks', migration: marks },
  { name: '0026-backups', migration: backups },
  { name: '0027-proposals', migration: proposals },
];

/** Brings the database up to date; returns the names of what was run. Two starters do not collide. */
export async function migrate(): Promise<string[]> {
  await prepareSchema(databaseUrl());
  const sequelize = patientDatabase();
  const umzug = new Umzug({
    migrations: migrations.map(({ name, migration }) => ({
      name,
      up: () => migration.up(sequelize.getQueryInterface()),
      down: () => migration.down(sequelize.getQueryInterface()),
    })),
    storage: new SequelizeStorage({ sequelize, tableName: 'migrations' }),
    logger: undefined,
  });
  try {
    return await sequelize.transaction(async (transaction) => {
      // Held to the end of the transaction: a second starter waits here, then finds nothing to do.
      await sequelize.query('SELECT pg_advisory_xact_lock(4841434945)', { transaction });
      return (await umzug.up()).map(({ name }) => name);
    });
  } finally {
    await sequelize.close();
  }
}
