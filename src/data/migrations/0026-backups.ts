import type { QueryInterface } from 'sequelize';

/** How each night's backup went: null where it is there, restored on trial and compared. */
const rules = `
CREATE TABLE backup_nights (
  at timestamptz PRIMARY KEY DEFAULT now(),
  failed text
);
`;

export async function up(schema: QueryInterface): Promise<void> {
  await schema.sequelize.query(rules);
}

export async function down(schema: QueryInterface): Promise<void> {
  await schema.sequelize.query('DROP TABLE backup_nights');
}
