import type { QueryInterface } from 'sequelize';

/**
 * News of a change go out with the change itself, whoever makes it: of a job with its revision, of what all are judged by
 * with that one's. Many readings stored at once count as one revision.
 */
const rules = `
CREATE FUNCTION job_news() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  PERFORM pg_notify('hacienda_jobs', NEW.id::text);
  RETURN NULL;
END $$;
CREATE TRIGGER jobs_news AFTER INSERT OR UPDATE ON jobs FOR EACH ROW EXECUTE FUNCTION job_news();

CREATE FUNCTION surroundings_news() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  PERFORM pg_notify('hacienda_jobs', '');
  RETURN NULL;
END $$;
CREATE TRIGGER surroundings_news AFTER UPDATE ON surroundings FOR EACH ROW EXECUTE FUNCTION surroundings_news();

CREATE FUNCTION jobs_recorded() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  UPDATE jobs SET revision = revision + 1 WHERE id IN (SELECT job_id FROM recorded);
  RETURN NULL;
END $$;
DROP TRIGGER observations_revise ON observations;
CREATE TRIGGER observations_revise AFTER INSERT ON observations REFERENCING NEW TABLE AS recorded
  FOR EACH STATEMENT EXECUTE FUNCTION jobs_recorded();
`;

export async function up(schema: QueryInterface): Promise<void> {
  await schema.sequelize.query(rules);
}

export async function down(schema: QueryInterface): Promise<void> {
  await schema.sequelize.query(`
    DROP TRIGGER observations_revise ON observations;
    CREATE TRIGGER observations_revise AFTER INSERT ON observations FOR EACH ROW EXECUTE FUNCTION job_recorded();
    DROP FUNCTION jobs_recorded();
    DROP TRIGGER surroundings_news ON surroundings;
    DROP FUNCTION surroundings_news();
    DROP TRIGGER jobs_news ON jobs;
    DROP FUNCTION job_news();
  `);
}
