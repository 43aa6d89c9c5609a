import type { QueryInterface } from 'sequelize';

/** A relearn and what parts turned out to be say, for good, when they came by a file; other facts say so in their body. */
export async function up(schema: QueryInterface): Promise<void> {
  await schema.sequelize.query(`
    ALTER TABLE runs ADD COLUMN by_file jsonb;
    ALTER TABLE confirmations ADD COLUMN by_file jsonb;
  `);
}

export async function down(schema: QueryInterface): Promise<void> {
  await schema.sequelize.query(`
    ALTER TABLE confirmations DROP COLUMN by_file;
    ALTER TABLE runs DROP COLUMN by_file;
  `);
}
