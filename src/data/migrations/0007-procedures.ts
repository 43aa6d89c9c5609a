import type { QueryInterface } from 'sequelize';

/** Relearn procedures, every version of each: a run that was made by an older one can still be read. */
const tables = `
CREATE TABLE procedures (
  name text NOT NULL,
  version integer NOT NULL CHECK (version > 0),
  at timestamptz NOT NULL,
  by text NOT NULL,
  body jsonb NOT NULL,
  PRIMARY KEY (name, version)
);

CREATE TRIGGER procedures_append_only BEFORE UPDATE OR DELETE ON procedures
  FOR EACH ROW EXECUTE FUNCTION refuse_change();
`;

export async function up(schema: QueryInterface): Promise<void> {
  await schema.sequelize.query(tables);
}

export async function down(schema: QueryInterface): Promise<void> {
  await schema.sequelize.query('DROP TABLE procedures;');
}
