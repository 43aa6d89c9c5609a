import type { QueryInterface } from 'sequelize';

/** Relearn runs and what happened in them; at one car only one goes on at a time. */
const tables = `
CREATE TABLE runs (
  key uuid PRIMARY KEY,
  seq bigserial UNIQUE,
  job_id uuid NOT NULL REFERENCES jobs,
  vehicle_id uuid NOT NULL REFERENCES vehicles,
  procedure jsonb NOT NULL,
  started_at timestamptz NOT NULL,
  by text NOT NULL,
  ended_at timestamptz
);
CREATE INDEX runs_of_job ON runs (job_id);
CREATE UNIQUE INDEX runs_one_at_a_car ON runs (vehicle_id) WHERE ended_at IS NULL;

CREATE TABLE run_events (
  seq bigserial PRIMARY KEY,
  key uuid NOT NULL UNIQUE,
  run_key uuid NOT NULL REFERENCES runs,
  job_id uuid NOT NULL REFERENCES jobs,
  body jsonb NOT NULL,
  at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX run_events_of_job ON run_events (job_id, seq);
CREATE INDEX run_events_of_run ON run_events (run_key, seq);

CREATE TRIGGER run_events_append_only BEFORE UPDATE OR DELETE ON run_events
  FOR EACH ROW EXECUTE FUNCTION refuse_change();
CREATE TRIGGER runs_revise AFTER INSERT OR UPDATE ON runs FOR EACH ROW EXECUTE FUNCTION job_recorded();
CREATE TRIGGER run_events_revise AFTER INSERT ON run_events FOR EACH ROW EXECUTE FUNCTION job_recorded();
`;

export async function up(schema: QueryInterface): Promise<void> {
  await schema.sequelize.query(tables);
}

export async function down(schema: QueryInterface): Promise<void> {
  await schema.sequelize.query('DROP TABLE run_events; DROP TABLE runs;');
}
