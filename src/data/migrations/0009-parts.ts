import type { QueryInterface } from 'sequelize';

/** The catalogue of replacement sensors, and sensors that were programmed among the writes. */
const tables = `
CREATE TABLE parts (
  name text PRIMARY KEY,
  body jsonb NOT NULL,
  at timestamptz NOT NULL DEFAULT now(),
  by text NOT NULL
);

ALTER TABLE car_writes DROP CONSTRAINT car_writes_kind_check;
ALTER TABLE car_writes ADD CONSTRAINT car_writes_kind_check CHECK (kind IN ('registry', 'clear-codes', 'sensor'));
`;

export async function up(schema: QueryInterface): Promise<void> {
  await schema.sequelize.query(tables);
}

export async function down(schema: QueryInterface): Promise<void> {
  await schema.sequelize.query(`
    DROP TABLE parts;
    ALTER TABLE car_writes DROP CONSTRAINT car_writes_kind_check;
    ALTER TABLE car_writes ADD CONSTRAINT car_writes_kind_check CHECK (kind IN ('registry', 'clear-codes'));
  `);
}
