import type { QueryInterface } from 'sequelize';

/** A second thing to show at signing in, beside the passphrase; and sessions that wait for it. */
const columns = `
ALTER TABLE technicians
  -- What makes the codes, sealed: by a key that is not in the database.
  ADD COLUMN second_factor text,
  -- The step of time of the code that was used last: none is good twice.
  ADD COLUMN second_factor_step bigint,
  -- Hashes of the codes for the day the phone is lost, each good once.
  ADD COLUMN recovery_hashes text[] NOT NULL DEFAULT '{}';
ALTER TABLE sessions ADD COLUMN awaits_code boolean NOT NULL DEFAULT false;
`;

export async function up(schema: QueryInterface): Promise<void> {
  await schema.sequelize.query(columns);
}

export async function down(schema: QueryInterface): Promise<void> {
  await schema.sequelize.query(`
    ALTER TABLE sessions DROP COLUMN awaits_code;
    ALTER TABLE technicians DROP COLUMN recovery_hashes, DROP COLUMN second_factor_step, DROP COLUMN second_factor;
  `);
}
