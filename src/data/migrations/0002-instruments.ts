import type { QueryInterface } from 'sequelize';

/** The shop's own settings, its gauges and their checks, the tires on a vehicle; units that follow the shop until somebody chooses. */
const tables = `
CREATE TABLE shop (
  id smallint PRIMARY KEY CHECK (id = 1),
  settings jsonb NOT NULL,
  updated_at timestamptz NOT NULL DEFAULT now(),
  updated_by text NOT NULL
);

ALTER TABLE technicians ALTER COLUMN units DROP NOT NULL;

ALTER TABLE vehicles ADD COLUMN fitted jsonb;

CREATE TABLE gauges (
  id uuid PRIMARY KEY,
  name text NOT NULL,
  kind text NOT NULL CHECK (kind IN ('digital', 'dial', 'stick', 'air-line')),
  resolution_kpa double precision NOT NULL CHECK (resolution_kpa > 0),
  retired boolean NOT NULL DEFAULT false,
  created_at timestamptz NOT NULL DEFAULT now()
);
CREATE UNIQUE INDEX gauges_by_name ON gauges (lower(name)) WHERE NOT retired;

CREATE TABLE gauge_checks (
  key uuid PRIMARY KEY,
  gauge_id uuid NOT NULL REFERENCES gauges (id),
  at timestamptz NOT NULL,
  by text NOT NULL,
  reference text NOT NULL,
  reference_plus_minus_kpa double precision NOT NULL,
  points jsonb NOT NULL
);
CREATE INDEX gauge_checks_by_gauge ON gauge_checks (gauge_id, at);

CREATE TRIGGER gauge_checks_append_only BEFORE UPDATE OR DELETE ON gauge_checks
  FOR EACH ROW EXECUTE FUNCTION refuse_change();
`;

export async function up(schema: QueryInterface): Promise<void> {
  await schema.sequelize.query(tables);
}

export async function down(schema: QueryInterface): Promise<void> {
  await schema.sequelize.query(`
    DROP TABLE gauge_checks, gauges, shop;
    ALTER TABLE vehicles DROP COLUMN fitted;
    UPDATE technicians SET units = '{"pressure":"kPa","temperature":"°C","distance":"km"}' WHERE units IS NULL;
    ALTER TABLE technicians ALTER COLUMN units SET NOT NULL;
  `);
}
