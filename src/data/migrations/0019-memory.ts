import type { QueryInterface } from 'sequelize';

/**
 * What the shop remembers, to be found again: customers, every sensor ID that was met, and in which jobs. The last two are
 * an index of what is recorded elsewhere, kept by the database as it is recorded; they can be made anew from it.
 */
const tables = `
CREATE EXTENSION IF NOT EXISTS pg_trgm;

-- Indexes of parts are kept up at once: what waits in a list would be read through by every search.
CREATE TABLE customers (
  id uuid PRIMARY KEY,
  name text NOT NULL,
  phone text,
  email text,
  created_at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX customers_by_part ON customers USING gin (lower(name) gin_trgm_ops) WITH (fastupdate = off);
CREATE INDEX customers_by_name ON customers (lower(name));

ALTER TABLE vehicles ADD COLUMN customer_id uuid REFERENCES customers ON DELETE SET NULL;
CREATE INDEX vehicles_by_customer ON vehicles (customer_id);
CREATE INDEX vehicles_by_plate ON vehicles (plate text_pattern_ops);
CREATE INDEX vehicles_by_plate_part ON vehicles USING gin (plate gin_trgm_ops) WITH (fastupdate = off);
CREATE INDEX vehicles_by_vin_part ON vehicles USING gin (vin gin_trgm_ops) WITH (fastupdate = off);
CREATE INDEX vehicles_by_label_part ON vehicles USING gin (lower(label) gin_trgm_ops) WITH (fastupdate = off);

-- One row an ID: what is searched for parts of IDs stays small however often each was met.
CREATE TABLE sensor_ids (
  sensor_id text PRIMARY KEY
);
CREATE INDEX sensor_ids_by_part ON sensor_ids USING gin (sensor_id gin_trgm_ops) WITH (fastupdate = off);

CREATE TABLE sightings (
  sensor_id text NOT NULL REFERENCES sensor_ids,
  job_id uuid NOT NULL REFERENCES jobs ON DELETE CASCADE,
  how text NOT NULL CHECK (how IN ('heard', 'held', 'programmed', 'printed')),
  last_at timestamptz NOT NULL,
  PRIMARY KEY (sensor_id, job_id, how)
);
CREATE INDEX sightings_by_job ON sightings (job_id);

-- As IDs are compared: without regard to case, blanks and hyphens.
CREATE FUNCTION canonical_id(id text) RETURNS text LANGUAGE sql IMMUTABLE PARALLEL SAFE
  AS $$ SELECT upper(regexp_replace(id, '[\\s-]', '', 'g')) $$;

CREATE TYPE sighting AS (sensor_id text, job_id uuid, how text, at timestamptz);

-- In the order of IDs, so that two at once do not wait for each other.
CREATE FUNCTION note_sightings(met sighting[]) RETURNS void LANGUAGE plpgsql AS $$
BEGIN
  INSERT INTO sensor_ids
    SELECT DISTINCT canonical_id(sensor_id) AS id FROM unnest(met) WHERE canonical_id(sensor_id) <> '' ORDER BY id
    ON CONFLICT DO NOTHING;
  INSERT INTO sightings
    SELECT canonical_id(sensor_id) AS id, job_id, how, max(at) FROM unnest(met) WHERE canonical_id(sensor_id) <> ''
    GROUP BY id, job_id, how ORDER BY id, job_id, how
    ON CONFLICT (sensor_id, job_id, how) DO UPDATE SET last_at = greatest(sightings.last_at, excluded.last_at);
END $$;

CREATE FUNCTION met_in_observation(job_id uuid, kind text, at timestamptz, body jsonb) RETURNS SETOF sighting
  LANGUAGE sql IMMUTABLE AS $$
    SELECT reply ->> 'id', job_id, 'heard', at
      FROM jsonb_array_elements(CASE WHEN kind = 'activation' THEN body -> 'replies' END) AS reply
    UNION ALL
    SELECT entry ->> 'id', job_id, 'held', at
      FROM jsonb_array_elements(CASE WHEN kind = 'registry' THEN body -> 'entries' END) AS entry
      WHERE entry ->> 'id' IS NOT NULL
  $$;

CREATE FUNCTION met_in_write(job_id uuid, kind text, at timestamptz, body jsonb) RETURNS SETOF sighting
  LANGUAGE sql IMMUTABLE AS $$
    SELECT body -> 'asked' ->> 'id', job_id, 'programmed', at
      WHERE kind = 'sensor' AND body -> 'asked' ->> 'id' IS NOT NULL
  $$;

CREATE FUNCTION met_in_service(job_id uuid, at timestamptz, body jsonb) RETURNS SETOF sighting
  LANGUAGE sql IMMUTABLE AS $$
    SELECT body ->> 'printedId', job_id, 'printed', at WHERE body ->> 'printedId' IS NOT NULL
  $$;

CREATE FUNCTION observations_met() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE met sighting[];
BEGIN
  SELECT array_agg(m) INTO met FROM recorded r, met_in_observation(r.job_id, r.kind, r.at, r.body) m
    WHERE r.kind IN ('activation', 'registry');
  IF met IS NOT NULL THEN PERFORM note_sightings(met); END IF;
  RETURN NULL;
END $$;
CREATE TRIGGER observations_met AFTER INSERT ON observations REFERENCING NEW TABLE AS recorded
  FOR EACH STATEMENT EXECUTE FUNCTION observations_met();

CREATE FUNCTION writes_met() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE met sighting[];
BEGIN
  SELECT array_agg(m) INTO met FROM met_in_write(NEW.job_id, NEW.kind, NEW.asked_at, NEW.body) m;
  IF met IS NOT NULL THEN PERFORM note_sightings(met); END IF;
  RETURN NULL;
END $$;
CREATE TRIGGER car_writes_met AFTER INSERT OR UPDATE ON car_writes FOR EACH ROW EXECUTE FUNCTION writes_met();

CREATE FUNCTION services_met() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE met sighting[];
BEGIN
  SELECT array_agg(m) INTO met FROM met_in_service(NEW.job_id, NEW.at, NEW.body) m;
  IF met IS NOT NULL THEN PERFORM note_sightings(met); END IF;
  RETURN NULL;
END $$;
CREATE TRIGGER sensor_services_met AFTER INSERT ON sensor_services FOR EACH ROW EXECUTE FUNCTION services_met();

-- Lists over all years; what the Yard asks for; the newest confirmation from before a job.
CREATE INDEX jobs_cancelled ON jobs (cancelled_at DESC) WHERE state = 'cancelled';
CREATE INDEX confirmations_by_time ON confirmations (at DESC, seq DESC);
CREATE INDEX jobs_by_day ON jobs (opened_at DESC, id DESC);
CREATE INDEX jobs_by_opener ON jobs (opened_by, opened_at DESC, id DESC);
CREATE INDEX jobs_unproved ON jobs (opened_at DESC, id DESC) WHERE header -> 'visit' ->> 'unproved' IS NOT NULL;
`;

/** What stands already is met too; each car belongs to whom its last job names. */
const before = `
-- However long it takes.
SET LOCAL statement_timeout = 0;
CREATE TEMPORARY TABLE stood ON COMMIT DROP AS
  SELECT canonical_id((m).sensor_id) AS id, (m).job_id, (m).how, (m).at FROM (
    SELECT met_in_observation(job_id, kind, at, body) AS m FROM observations WHERE kind IN ('activation', 'registry')
    UNION ALL SELECT met_in_write(job_id, kind, asked_at, body) FROM car_writes
    UNION ALL SELECT met_in_service(job_id, at, body) FROM sensor_services
  ) AS one;
INSERT INTO sensor_ids SELECT DISTINCT id FROM stood WHERE id <> '';
INSERT INTO sightings SELECT id, job_id, how, max(at) FROM stood WHERE id <> '' GROUP BY id, job_id, how;

INSERT INTO customers (id, name)
  SELECT gen_random_uuid(), min(name) FROM (
    SELECT btrim(header -> 'visit' ->> 'customer') AS name FROM jobs
  ) AS named WHERE name <> '' GROUP BY lower(name);
UPDATE vehicles SET customer_id = (
  SELECT customers.id FROM jobs JOIN customers ON lower(customers.name) = lower(btrim(jobs.header -> 'visit' ->> 'customer'))
  WHERE jobs.vehicle_id = vehicles.id ORDER BY jobs.opened_at DESC LIMIT 1);
`;

export async function up(schema: QueryInterface): Promise<void> {
  await schema.sequelize.query(tables);
  await schema.sequelize.query(before);
}

export async function down(schema: QueryInterface): Promise<void> {
  await schema.sequelize.query(`
    DROP INDEX jobs_by_day, jobs_by_opener, jobs_unproved, jobs_cancelled, confirmations_by_time;
    DROP TRIGGER observations_met ON observations;
    DROP TRIGGER car_writes_met ON car_writes;
    DROP TRIGGER sensor_services_met ON sensor_services;
    DROP FUNCTION observations_met, writes_met, services_met, met_in_observation, met_in_write, met_in_service,
      note_sightings;
    DROP TABLE sightings, sensor_ids;
    DROP TYPE sighting;
    DROP FUNCTION canonical_id;
    DROP INDEX vehicles_by_customer, vehicles_by_plate, vehicles_by_plate_part, vehicles_by_vin_part,
      vehicles_by_label_part;
    ALTER TABLE vehicles DROP COLUMN customer_id;
    DROP TABLE customers;
  `);
}
