import type { QueryInterface } from 'sequelize';

/** What a flag proposes for the next version of its procedure, and what was said to that. */
const tables = `
ALTER TABLE procedure_flags ADD COLUMN proposes jsonb;
CREATE TABLE procedure_flag_answers (
  flag_key uuid PRIMARY KEY REFERENCES procedure_flags,
  at timestamptz NOT NULL,
  by text NOT NULL,
  taken_as integer
);
CREATE TRIGGER procedure_flag_answers_append_only BEFORE UPDATE OR DELETE ON procedure_flag_answers
  FOR EACH ROW EXECUTE FUNCTION refuse_change();
`;

export async function up(schema: QueryInterface): Promise<void> {
  await schema.sequelize.query(tables);
}

export async function down(schema: QueryInterface): Promise<void> {
  await schema.sequelize.query(
    'DROP TABLE procedure_flag_answers; ALTER TABLE procedure_flags DROP COLUMN proposes;',
  );
}
