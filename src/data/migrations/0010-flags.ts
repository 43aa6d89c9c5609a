import type { QueryInterface } from 'sequelize';

/** Procedures that were found wrong at a car: by whom, in which run, and what the car did instead. */
const tables = `
CREATE TABLE procedure_flags (
  key uuid PRIMARY KEY,
  name text NOT NULL,
  version integer,
  run_key uuid NOT NULL REFERENCES runs,
  at timestamptz NOT NULL,
  by text NOT NULL,
  step text NOT NULL,
  instead text NOT NULL
);
CREATE INDEX procedure_flags_by_name ON procedure_flags (name);
CREATE TRIGGER procedure_flags_append_only BEFORE UPDATE OR DELETE ON procedure_flags
  FOR EACH ROW EXECUTE FUNCTION refuse_change();
`;

export async function up(schema: QueryInterface): Promise<void> {
  await schema.sequelize.query(tables);
}

export async function down(schema: QueryInterface): Promise<void> {
  await schema.sequelize.query('DROP TABLE procedure_flags;');
}
