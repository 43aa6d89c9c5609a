import type { QueryInterface } from 'sequelize';

/** The lamp's pressures among what is written to a car. */
const kinds = (list: string) => `
ALTER TABLE car_writes DROP CONSTRAINT car_writes_kind_check;
ALTER TABLE car_writes ADD CONSTRAINT car_writes_kind_check CHECK (kind IN (${list}));
`;

export async function up(schema: QueryInterface): Promise<void> {
  await schema.sequelize.query(kinds("'registry', 'clear-codes', 'sensor', 'thresholds'"));
}

export async function down(schema: QueryInterface): Promise<void> {
  await schema.sequelize.query(kinds("'registry', 'clear-codes', 'sensor'"));
}
