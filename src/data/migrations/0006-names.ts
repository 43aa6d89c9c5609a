import type { QueryInterface } from 'sequelize';

/** A column that was named before the word of metrology was taken up. */
export async function up(schema: QueryInterface): Promise<void> {
  await schema.sequelize.query(
    'ALTER TABLE gauge_checks RENAME COLUMN reference_plus_minus_kpa TO reference_uncertainty_kpa',
  );
}

export async function down(schema: QueryInterface): Promise<void> {
  await schema.sequelize.query(
    'ALTER TABLE gauge_checks RENAME COLUMN reference_uncertainty_kpa TO reference_plus_minus_kpa',
  );
}
