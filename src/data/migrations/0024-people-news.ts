import type { QueryInterface } from 'sequelize';

/**
 * News go out when a session ends, an account changes or the shop is set otherwise, whoever does it: server processes
 * remember who is signed in, and must not for longer than it holds. That a session was used is no news.
 */
const rules = `
CREATE FUNCTION people_news() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  PERFORM pg_notify('hacienda_jobs', 'people');
  RETURN NULL;
END $$;
CREATE TRIGGER sessions_news AFTER DELETE OR UPDATE OF technician_id, expires_at, awaits_code ON sessions
  FOR EACH ROW EXECUTE FUNCTION people_news();
CREATE TRIGGER technicians_news AFTER DELETE OR UPDATE OF name, role, active, units, second_factor ON technicians
  FOR EACH ROW EXECUTE FUNCTION people_news();
CREATE TRIGGER shop_news AFTER INSERT OR UPDATE OR DELETE ON shop
  FOR EACH ROW EXECUTE FUNCTION people_news();
`;

export async function up(schema: QueryInterface): Promise<void> {
  await schema.sequelize.query(rules);
}

export async function down(schema: QueryInterface): Promise<void> {
  await schema.sequelize.query(`
    DROP TRIGGER shop_news ON shop;
    DROP TRIGGER technicians_news ON technicians;
    DROP TRIGGER sessions_news ON sessions;
    DROP FUNCTION people_news();
  `);
}
