import type { QueryInterface } from 'sequelize';

/** What leads from a visit to what was agreed at it. */
export async function up(schema: QueryInterface): Promise<void> {
  await schema.sequelize.query('CREATE INDEX follow_ups_by_job ON follow_ups (job_id);');
}

export async function down(schema: QueryInterface): Promise<void> {
  await schema.sequelize.query('DROP INDEX follow_ups_by_job;');
}
