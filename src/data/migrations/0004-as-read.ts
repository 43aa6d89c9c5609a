import type { QueryInterface } from 'sequelize';

/**
 * Gauge readings as they were read. The corrected pressure, its uncertainty and its trust were stored beside them;
 * now they are worked out by the register, so that a later check speaks for the readings before it. Of a tire's
 * estimated temperature only the estimate is there: it stays.
 */
const asRead = (reading: string) => `
  CASE WHEN ${reading} ? 'gauge' AND ${reading} ? 'readKPa'
    THEN (${reading} - 'readKPa' - 'plusMinusKPa' - 'trusted') || jsonb_build_object('kPa', ${reading}->'readKPa')
    WHEN ${reading}->>'trusted' = 'true' THEN ${reading} - 'trusted'
    ELSE ${reading}
  END`;

export async function up(schema: QueryInterface): Promise<void> {
  await schema.sequelize.query(`
    ALTER TABLE observations DISABLE TRIGGER observations_append_only;
    UPDATE observations SET body = ${asRead('body')} WHERE kind = 'gauge';
    ALTER TABLE observations ENABLE TRIGGER observations_append_only;

    UPDATE jobs SET header = jsonb_set(header, '{history}', (
      SELECT jsonb_agg(${asRead('reading')} ORDER BY place)
      FROM jsonb_array_elements(header->'history') WITH ORDINALITY AS list(reading, place)
    )) WHERE jsonb_array_length(header->'history') > 0;
  `);
}

/** Readings as they were read are readings to the version before, too. */
export async function down(): Promise<void> {}
