import type { QueryInterface } from 'sequelize';

/**
 * Wheel sets as things that are somewhere, wheel by wheel; labels; what is to be looked at again; records of one car that
 * were two.
 */
const tables = `
ALTER TABLE wheel_sets ADD COLUMN season text NOT NULL DEFAULT 'all-season'
  CHECK (season IN ('summer', 'winter', 'all-season', 'spare'));
ALTER TABLE wheel_sets ADD COLUMN place text NOT NULL DEFAULT 'customer'
  CHECK (place IN ('car', 'shop', 'customer', 'gone'));
ALTER TABLE wheel_sets ADD COLUMN rack text;
ALTER TABLE wheel_sets ADD COLUMN version integer NOT NULL DEFAULT 1;
UPDATE wheel_sets SET place = 'car' WHERE fitted;
ALTER TABLE wheel_sets DROP COLUMN fitted;
CREATE UNIQUE INDEX one_set_on_a_car ON wheel_sets (vehicle_id) WHERE place = 'car';
CREATE INDEX wheel_sets_by_rack ON wheel_sets (rack) WHERE place = 'shop';

-- A wheel may have no sensor.
ALTER TABLE sensors RENAME TO wheels;
ALTER INDEX sensors_by_set RENAME TO wheels_by_set;
DROP INDEX sensors_by_sensor_id;
CREATE INDEX wheels_by_sensor_id ON wheels (canonical_id(sensor_id));
ALTER TABLE wheels ALTER COLUMN sensor_id DROP NOT NULL;
ALTER TABLE wheels ADD COLUMN tread_mm double precision CHECK (tread_mm BETWEEN 0 AND 30);
ALTER TABLE wheels ADD COLUMN dot text;
ALTER TABLE wheels ADD COLUMN size text;

-- IDs on file are found too, heard or not.
CREATE FUNCTION wheels_met() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  INSERT INTO sensor_ids SELECT DISTINCT canonical_id(sensor_id) AS id FROM filed
    WHERE canonical_id(sensor_id) <> '' ORDER BY id ON CONFLICT DO NOTHING;
  RETURN NULL;
END $$;
CREATE TRIGGER wheels_met AFTER INSERT ON wheels REFERENCING NEW TABLE AS filed
  FOR EACH STATEMENT EXECUTE FUNCTION wheels_met();
INSERT INTO sensor_ids SELECT DISTINCT canonical_id(sensor_id) FROM wheels WHERE canonical_id(sensor_id) <> ''
  ON CONFLICT DO NOTHING;

-- What stands on a label means nothing but here.
CREATE TABLE labels (
  code text PRIMARY KEY,
  of text NOT NULL CHECK (of IN ('set', 'wheel', 'sensor', 'key')),
  vehicle_id uuid REFERENCES vehicles ON DELETE CASCADE,
  wheel_set_id uuid REFERENCES wheel_sets ON DELETE CASCADE,
  wheel text CHECK (wheel IN ('LF', 'RF', 'RR', 'LR', 'SP')),
  sensor_id text,
  at timestamptz NOT NULL DEFAULT now(),
  by text NOT NULL
);
CREATE UNIQUE INDEX labels_of_keys ON labels (vehicle_id) WHERE of = 'key';
CREATE UNIQUE INDEX labels_of_sets ON labels (wheel_set_id) WHERE of = 'set';
CREATE UNIQUE INDEX labels_of_wheels ON labels (wheel_set_id, wheel) WHERE of = 'wheel';
CREATE UNIQUE INDEX labels_of_sensors ON labels (sensor_id) WHERE of = 'sensor';

CREATE TABLE follow_ups (
  key uuid PRIMARY KEY,
  vehicle_id uuid NOT NULL REFERENCES vehicles,
  job_id uuid REFERENCES jobs,
  about text NOT NULL CHECK (about IN ('leak', 'lamp', 'sensor', 'nuts', 'other')),
  wheel text CHECK (wheel IN ('LF', 'RF', 'RR', 'LR', 'SP')),
  note text NOT NULL DEFAULT '',
  due_on date NOT NULL,
  at timestamptz NOT NULL DEFAULT now(),
  by text NOT NULL,
  ended_at timestamptz,
  ended_by text,
  outcome text CHECK (outcome IN ('done', 'dropped')),
  word text
);
CREATE INDEX follow_ups_due ON follow_ups (due_on) WHERE ended_at IS NULL;
CREATE INDEX follow_ups_by_vehicle ON follow_ups (vehicle_id);

-- Two records of one car: what went over to the one that stays, so that it can go back.
CREATE TABLE merges (
  key uuid PRIMARY KEY,
  kept uuid NOT NULL REFERENCES vehicles,
  gone uuid NOT NULL REFERENCES vehicles,
  jobs uuid[] NOT NULL,
  sets uuid[] NOT NULL,
  plate text,
  vin text,
  at timestamptz NOT NULL DEFAULT now(),
  by text NOT NULL,
  undone_at timestamptz,
  undone_by text
);
CREATE UNIQUE INDEX merged_once ON merges (gone) WHERE undone_at IS NULL;
CREATE INDEX merges_by_kept ON merges (kept);
ALTER TABLE vehicles ADD COLUMN merged_into uuid REFERENCES vehicles;
`;

export async function up(schema: QueryInterface): Promise<void> {
  await schema.sequelize.query(tables);
}

export async function down(schema: QueryInterface): Promise<void> {
  await schema.sequelize.query(`
    ALTER TABLE vehicles DROP COLUMN merged_into;
    DROP TABLE merges, follow_ups, labels;
    DROP TRIGGER wheels_met ON wheels;
    DROP FUNCTION wheels_met;
    DELETE FROM wheels WHERE sensor_id IS NULL;
    ALTER TABLE wheels DROP COLUMN tread_mm, DROP COLUMN dot, DROP COLUMN size;
    ALTER TABLE wheels ALTER COLUMN sensor_id SET NOT NULL;
    ALTER INDEX wheels_by_set RENAME TO sensors_by_set;
    DROP INDEX wheels_by_sensor_id;
    CREATE INDEX sensors_by_sensor_id ON wheels (sensor_id);
    ALTER TABLE wheels RENAME TO sensors;
    DROP INDEX one_set_on_a_car, wheel_sets_by_rack;
    ALTER TABLE wheel_sets ADD COLUMN fitted boolean NOT NULL DEFAULT false;
    UPDATE wheel_sets SET fitted = place = 'car';
    ALTER TABLE wheel_sets DROP COLUMN season, DROP COLUMN place, DROP COLUMN rack, DROP COLUMN version;
  `);
}
