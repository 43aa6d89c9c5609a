import type { QueryInterface } from 'sequelize';

/** What the parts of a car turned out to be. The latest row of a job holds; one without parts takes back. */
const tables = `
CREATE TABLE confirmations (
  seq bigserial PRIMARY KEY,
  key uuid NOT NULL UNIQUE,
  job_id uuid NOT NULL REFERENCES jobs (id),
  at timestamptz NOT NULL,
  by text NOT NULL,
  parts jsonb NOT NULL
);
CREATE INDEX confirmations_by_job ON confirmations (job_id, seq);

CREATE TRIGGER confirmations_append_only BEFORE UPDATE OR DELETE ON confirmations
  FOR EACH ROW EXECUTE FUNCTION refuse_change();
`;

export async function up(schema: QueryInterface): Promise<void> {
  await schema.sequelize.query(tables);
}

export async function down(schema: QueryInterface): Promise<void> {
  await schema.sequelize.query('DROP TABLE confirmations;');
}
