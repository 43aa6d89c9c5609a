import type { QueryInterface } from 'sequelize';

/** A job can be cancelled, and what was recorded by mistake is taken back: kept, out of all judgement. */
const tables = `
ALTER TABLE jobs DROP CONSTRAINT jobs_state_check;
ALTER TABLE jobs ADD CONSTRAINT jobs_state_check CHECK (state IN ('open', 'handed-over', 'cancelled'));
ALTER TABLE jobs ADD COLUMN cancelled_at timestamptz;

CREATE TABLE taken_back (
  observation_key uuid PRIMARY KEY REFERENCES observations (key),
  job_id uuid NOT NULL REFERENCES jobs (id),
  at timestamptz NOT NULL,
  by text NOT NULL,
  reason text NOT NULL
);
CREATE INDEX taken_back_job ON taken_back (job_id);
CREATE TRIGGER taken_back_revise AFTER INSERT ON taken_back FOR EACH ROW EXECUTE FUNCTION job_recorded();
`;

export async function up(schema: QueryInterface): Promise<void> {
  await schema.sequelize.query(tables);
}

export async function down(schema: QueryInterface): Promise<void> {
  await schema.sequelize.query(`
    DROP TABLE taken_back;
    ALTER TABLE jobs DROP COLUMN cancelled_at;
    ALTER TABLE jobs DROP CONSTRAINT jobs_state_check;
    ALTER TABLE jobs ADD CONSTRAINT jobs_state_check CHECK (state IN ('open', 'handed-over'));
  `);
}
