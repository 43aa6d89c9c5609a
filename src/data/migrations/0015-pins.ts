import type { QueryInterface } from 'sequelize';

/** A short PIN signs in on a device a manager has paired; sessions say where and since when they are. */
const tables = `
ALTER TABLE technicians ADD COLUMN pin_hash text;

CREATE TABLE paired_devices (
  id uuid PRIMARY KEY,
  token_hash text NOT NULL UNIQUE,
  name text NOT NULL,
  paired_at timestamptz NOT NULL DEFAULT now(),
  paired_by text NOT NULL,
  last_seen_at timestamptz,
  unpaired_at timestamptz
);

ALTER TABLE sessions ADD COLUMN id uuid NOT NULL DEFAULT gen_random_uuid();
ALTER TABLE sessions ADD COLUMN started_at timestamptz NOT NULL DEFAULT now();
ALTER TABLE sessions ADD COLUMN agent text NOT NULL DEFAULT '';
ALTER TABLE sessions ADD COLUMN device_id uuid REFERENCES paired_devices (id);
CREATE UNIQUE INDEX sessions_by_id ON sessions (id);
`;

export async function up(schema: QueryInterface): Promise<void> {
  await schema.sequelize.query(tables);
}

export async function down(schema: QueryInterface): Promise<void> {
  await schema.sequelize.query(`
    DROP INDEX sessions_by_id;
    ALTER TABLE sessions DROP COLUMN device_id;
    ALTER TABLE sessions DROP COLUMN agent;
    ALTER TABLE sessions DROP COLUMN started_at;
    ALTER TABLE sessions DROP COLUMN id;
    DROP TABLE paired_devices;
    ALTER TABLE technicians DROP COLUMN pin_hash;
  `);
}
