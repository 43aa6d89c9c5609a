import type { QueryInterface } from 'sequelize';

/**
 * A browser is known for the people who signed in with it. Marks of before were chosen by the browsers themselves, and
 * are nobody's: they are forgotten, and made anew at the next sign-in.
 */
const rules = `
DROP TABLE known_browsers;
CREATE TABLE known_browsers (
  token_hash text NOT NULL,
  technician_id uuid NOT NULL REFERENCES technicians (id) ON DELETE CASCADE,
  known_at timestamptz NOT NULL DEFAULT now(),
  PRIMARY KEY (token_hash, technician_id)
);
CREATE INDEX known_browsers_of ON known_browsers (technician_id, known_at);
`;

export async function up(schema: QueryInterface): Promise<void> {
  await schema.sequelize.query(rules);
}

export async function down(schema: QueryInterface): Promise<void> {
  await schema.sequelize.query(`
    DROP TABLE known_browsers;
    CREATE TABLE known_browsers (
      token_hash text PRIMARY KEY,
      known_at timestamptz NOT NULL DEFAULT now()
    );
  `);
}
