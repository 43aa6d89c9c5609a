import type { QueryInterface } from 'sequelize';

/** Vehicles, wheel sets and sensors, jobs, observations, writes to a car, technicians and their sessions. */
const tables = `
CREATE TABLE technicians (
  id uuid PRIMARY KEY,
  name text NOT NULL,
  role text NOT NULL CHECK (role IN ('technician', 'adviser', 'manager')),
  passphrase_hash text NOT NULL,
  units jsonb NOT NULL,
  active boolean NOT NULL DEFAULT true,
  created_at timestamptz NOT NULL DEFAULT now()
);
CREATE UNIQUE INDEX technicians_by_name ON technicians (lower(name));

CREATE TABLE sessions (
  token_hash text PRIMARY KEY,
  technician_id uuid NOT NULL REFERENCES technicians (id) ON DELETE CASCADE,
  expires_at timestamptz NOT NULL
);
CREATE INDEX sessions_by_expiry ON sessions (expires_at);

CREATE TABLE sign_in_attempts (
  key text PRIMARY KEY,
  points integer NOT NULL DEFAULT 0,
  expire bigint
);

CREATE TABLE profiles (
  name text PRIMARY KEY,
  label text NOT NULL,
  from_year integer,
  to_year integer,
  tpms jsonb NOT NULL,
  placard jsonb NOT NULL,
  receiver jsonb
);

CREATE TABLE vehicles (
  id uuid PRIMARY KEY,
  vin text UNIQUE,
  plate text UNIQUE,
  label text NOT NULL,
  model_year integer,
  profile text,
  tpms jsonb NOT NULL,
  placard jsonb NOT NULL,
  updated_at timestamptz NOT NULL DEFAULT now()
);

CREATE TABLE wheel_sets (
  id uuid PRIMARY KEY,
  vehicle_id uuid NOT NULL REFERENCES vehicles (id),
  label text NOT NULL,
  fitted boolean NOT NULL,
  UNIQUE (vehicle_id, label)
);

CREATE TABLE sensors (
  id bigserial PRIMARY KEY,
  wheel_set_id uuid NOT NULL REFERENCES wheel_sets (id) ON DELETE CASCADE,
  sensor_id text NOT NULL,
  wheel text CHECK (wheel IN ('LF', 'RF', 'RR', 'LR', 'SP')),
  new_on date
);
CREATE INDEX sensors_by_set ON sensors (wheel_set_id);
CREATE INDEX sensors_by_sensor_id ON sensors (sensor_id);

CREATE TABLE jobs (
  id uuid PRIMARY KEY,
  number serial UNIQUE,
  key uuid NOT NULL UNIQUE,
  vehicle_id uuid NOT NULL REFERENCES vehicles (id),
  state text NOT NULL CHECK (state IN ('open', 'handed-over')),
  version integer NOT NULL,
  header jsonb NOT NULL,
  opened_by text NOT NULL,
  opened_at timestamptz NOT NULL,
  handed_over_at timestamptz,
  handed_over_by text
);
-- The Yard: what is open, and what was handed over lately.
CREATE INDEX jobs_open ON jobs (opened_at DESC) WHERE state = 'open';
CREATE INDEX jobs_handed_over ON jobs (handed_over_at DESC) WHERE state = 'handed-over';
-- History of a vehicle.
CREATE INDEX jobs_by_vehicle ON jobs (vehicle_id, opened_at DESC);

CREATE TABLE job_edits (
  job_id uuid NOT NULL REFERENCES jobs (id),
  version integer NOT NULL,
  key uuid NOT NULL UNIQUE,
  at timestamptz NOT NULL,
  by text NOT NULL,
  changes jsonb NOT NULL,
  PRIMARY KEY (job_id, version)
);

CREATE TABLE observations (
  seq bigserial PRIMARY KEY,
  key uuid NOT NULL UNIQUE,
  job_id uuid NOT NULL REFERENCES jobs (id),
  kind text NOT NULL,
  at timestamptz NOT NULL,
  body jsonb NOT NULL,
  -- A reading can be put right once; a second correction points to the first.
  replaces uuid UNIQUE REFERENCES observations (key),
  recorded_by text NOT NULL,
  recorded_at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX observations_by_job ON observations (job_id, seq);

CREATE TABLE car_writes (
  seq bigserial PRIMARY KEY,
  key uuid NOT NULL UNIQUE,
  job_id uuid NOT NULL REFERENCES jobs (id),
  kind text NOT NULL CHECK (kind IN ('registry', 'clear-codes')),
  asked_at timestamptz NOT NULL,
  answered_at timestamptz,
  answer text CHECK (answer IN ('yes', 'no', 'lost')),
  read_back_at timestamptz,
  body jsonb NOT NULL,
  asked_by text NOT NULL
);
CREATE INDEX car_writes_by_job ON car_writes (job_id, seq);

-- What was seen is never changed or taken away.
CREATE FUNCTION refuse_change() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  RAISE EXCEPTION 'observations are append-only';
END $$;
CREATE TRIGGER observations_append_only BEFORE UPDATE OR DELETE ON observations
  FOR EACH ROW EXECUTE FUNCTION refuse_change();
`;

export async function up(schema: QueryInterface): Promise<void> {
  await schema.sequelize.query(tables);
}

export async function down(schema: QueryInterface): Promise<void> {
  await schema.sequelize.query(`
    DROP TABLE car_writes, observations, job_edits, jobs, sensors, wheel_sets, vehicles, profiles,
      sign_in_attempts, sessions, technicians;
    DROP FUNCTION refuse_change();
  `);
}
