import type { QueryInterface } from 'sequelize';

/**
 * Browsers somebody has signed in with before are counted apart; a session ends when it is not used; and there is always
 * a manager who can let others in, whoever closes whom at the same time.
 */
const rules = `
CREATE TABLE known_browsers (
  token_hash text PRIMARY KEY,
  known_at timestamptz NOT NULL DEFAULT now()
);

ALTER TABLE sessions ADD COLUMN used_at timestamptz NOT NULL DEFAULT now();

CREATE FUNCTION keep_a_manager() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  PERFORM pg_advisory_xact_lock(hashtext('hacienda keep_a_manager'));
  IF NOT EXISTS (SELECT 1 FROM technicians WHERE active AND role = 'manager') THEN
    RAISE EXCEPTION 'one manager stays' USING ERRCODE = 'check_violation', CONSTRAINT = 'keep_a_manager';
  END IF;
  RETURN NULL;
END $$;

CREATE TRIGGER keep_a_manager AFTER UPDATE OF active, role ON technicians FOR EACH ROW
  WHEN (OLD.active AND OLD.role = 'manager' AND NOT (NEW.active AND NEW.role = 'manager'))
  EXECUTE FUNCTION keep_a_manager();
CREATE TRIGGER keep_a_manager_there AFTER DELETE ON technicians FOR EACH ROW
  WHEN (OLD.active AND OLD.role = 'manager')
  EXECUTE FUNCTION keep_a_manager();
`;

export async function up(schema: QueryInterface): Promise<void> {
  await schema.sequelize.query(rules);
}

export async function down(schema: QueryInterface): Promise<void> {
  await schema.sequelize.query(`
    DROP TRIGGER keep_a_manager_there ON technicians;
    DROP TRIGGER keep_a_manager ON technicians;
    DROP FUNCTION keep_a_manager();
    ALTER TABLE sessions DROP COLUMN used_at;
    DROP TABLE known_browsers;
  `);
}
