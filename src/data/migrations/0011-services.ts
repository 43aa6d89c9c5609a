import type { QueryInterface } from 'sequelize';

/** How sensors were serviced, each with a picture where one was taken. */
const tables = `
CREATE TABLE sensor_services (
  key uuid PRIMARY KEY,
  seq bigserial UNIQUE,
  job_id uuid NOT NULL REFERENCES jobs,
  body jsonb NOT NULL,
  photo text,
  at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX sensor_services_by_job ON sensor_services (job_id, seq);
CREATE TRIGGER sensor_services_append_only BEFORE UPDATE OR DELETE ON sensor_services
  FOR EACH ROW EXECUTE FUNCTION refuse_change();
CREATE TRIGGER sensor_services_revise AFTER INSERT ON sensor_services
  FOR EACH ROW EXECUTE FUNCTION job_recorded();
`;

export async function up(schema: QueryInterface): Promise<void> {
  await schema.sequelize.query(tables);
}

export async function down(schema: QueryInterface): Promise<void> {
  await schema.sequelize.query('DROP TABLE sensor_services;');
}
