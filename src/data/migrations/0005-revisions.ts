import type { QueryInterface } from 'sequelize';

/**
 * What a verdict rests on, counted: `jobs.revision` goes up with everything recorded on a job or corrected about it,
 * `surroundings.revision` with the register of gauges and the vehicle profiles. A verdict that was worked out for
 * both holds as long as neither moves.
 */
const tables = `
ALTER TABLE jobs ADD COLUMN revision bigint NOT NULL DEFAULT 1;

CREATE TABLE surroundings (
  id smallint PRIMARY KEY CHECK (id = 1),
  revision bigint NOT NULL
);
INSERT INTO surroundings VALUES (1, 1);

CREATE FUNCTION job_recorded() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  UPDATE jobs SET revision = revision + 1 WHERE id = NEW.job_id;
  RETURN NULL;
END $$;
CREATE TRIGGER observations_revise AFTER INSERT ON observations FOR EACH ROW EXECUTE FUNCTION job_recorded();
CREATE TRIGGER car_writes_revise AFTER INSERT OR UPDATE ON car_writes FOR EACH ROW EXECUTE FUNCTION job_recorded();
CREATE TRIGGER confirmations_revise AFTER INSERT ON confirmations FOR EACH ROW EXECUTE FUNCTION job_recorded();

CREATE FUNCTION job_corrected() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  NEW.revision = OLD.revision + 1;
  RETURN NEW;
END $$;
CREATE TRIGGER jobs_revise BEFORE UPDATE ON jobs FOR EACH ROW EXECUTE FUNCTION job_corrected();

CREATE FUNCTION surroundings_changed() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  UPDATE surroundings SET revision = revision + 1;
  RETURN NULL;
END $$;
CREATE TRIGGER gauges_revise AFTER INSERT OR UPDATE ON gauges FOR EACH STATEMENT EXECUTE FUNCTION surroundings_changed();
CREATE TRIGGER gauge_checks_revise AFTER INSERT ON gauge_checks FOR EACH STATEMENT EXECUTE FUNCTION surroundings_changed();
CREATE TRIGGER profiles_revise AFTER INSERT OR UPDATE OR DELETE ON profiles FOR EACH STATEMENT EXECUTE FUNCTION surroundings_changed();
`;

export async function up(schema: QueryInterface): Promise<void> {
  await schema.sequelize.query(tables);
}

export async function down(schema: QueryInterface): Promise<void> {
  await schema.sequelize.query(`
    DROP TRIGGER observations_revise ON observations;
    DROP TRIGGER car_writes_revise ON car_writes;
    DROP TRIGGER confirmations_revise ON confirmations;
    DROP TRIGGER jobs_revise ON jobs;
    DROP TRIGGER gauges_revise ON gauges;
    DROP TRIGGER gauge_checks_revise ON gauge_checks;
    DROP TRIGGER profiles_revise ON profiles;
    DROP FUNCTION job_recorded();
    DROP FUNCTION job_corrected();
    DROP FUNCTION surroundings_changed();
    DROP TABLE surroundings;
    ALTER TABLE jobs DROP COLUMN revision;
  `);
}
