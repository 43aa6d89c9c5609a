import type { QueryInterface } from 'sequelize';

/**
 * What comes in and goes out by itself: lists that were brought in, so that they can be taken out again; programs that
 * read; addresses that are told; and who looked at whose records.
 */
const tables = `
CREATE TABLE customer_imports (
  key uuid PRIMARY KEY,
  name text NOT NULL,
  at timestamptz NOT NULL DEFAULT now(),
  by text NOT NULL,
  customers integer NOT NULL,
  cars integer NOT NULL,
  given integer NOT NULL,
  undone_at timestamptz,
  undone_by text
);
CREATE TABLE customer_import_rows (
  import_key uuid NOT NULL REFERENCES customer_imports ON DELETE CASCADE,
  kind text NOT NULL CHECK (kind IN ('customer', 'car', 'given')),
  id uuid NOT NULL,
  -- Whom a car was given to.
  owner uuid,
  PRIMARY KEY (import_key, kind, id)
);

-- A program that reads. The token itself is not stored.
CREATE TABLE api_tokens (
  id uuid PRIMARY KEY,
  token_hash text NOT NULL UNIQUE,
  name text NOT NULL,
  made_at timestamptz NOT NULL DEFAULT now(),
  made_by text NOT NULL,
  used_at timestamptz,
  ended_at timestamptz,
  ended_by text
);

-- An address that is told when a car is handed over. Its secret signs what is sent, so it has to be known.
CREATE TABLE webhooks (
  id uuid PRIMARY KEY,
  url text NOT NULL,
  secret text NOT NULL,
  made_at timestamptz NOT NULL DEFAULT now(),
  made_by text NOT NULL,
  ended_at timestamptz,
  ended_by text
);
CREATE TABLE webhook_deliveries (
  key uuid PRIMARY KEY,
  webhook_id uuid NOT NULL REFERENCES webhooks,
  job_id uuid NOT NULL REFERENCES jobs,
  body jsonb NOT NULL,
  at timestamptz NOT NULL DEFAULT now(),
  tries integer NOT NULL DEFAULT 0,
  next_at timestamptz DEFAULT now(),
  told_at timestamptz,
  answer text,
  UNIQUE (webhook_id, job_id)
);
CREATE INDEX webhook_deliveries_due ON webhook_deliveries (next_at) WHERE next_at IS NOT NULL;
CREATE INDEX webhook_deliveries_by_hook ON webhook_deliveries (webhook_id, at DESC);

-- That something was deleted at somebody's wish, and of how much; never whose it was.
CREATE TABLE erasures (
  key uuid PRIMARY KEY,
  at timestamptz NOT NULL DEFAULT now(),
  by text NOT NULL,
  cars integer NOT NULL,
  jobs integer NOT NULL
);

CREATE TABLE looks (
  seq bigserial PRIMARY KEY,
  at timestamptz NOT NULL DEFAULT now(),
  person_id uuid NOT NULL,
  by text NOT NULL,
  what text NOT NULL,
  job_id uuid,
  vehicle_id uuid,
  words text
);
CREATE INDEX looks_by_time ON looks (at DESC);
CREATE INDEX looks_by_vehicle ON looks (vehicle_id, at DESC) WHERE vehicle_id IS NOT NULL;
CREATE INDEX looks_by_job ON looks (job_id, at DESC) WHERE job_id IS NOT NULL;
`;

export async function up(schema: QueryInterface): Promise<void> {
  await schema.sequelize.query(tables);
}

export async function down(schema: QueryInterface): Promise<void> {
  await schema.sequelize.query(`
    DROP TABLE looks, erasures, webhook_deliveries, webhooks, api_tokens, customer_import_rows, customer_imports;
  `);
}
