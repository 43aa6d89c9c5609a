import type { QueryInterface } from 'sequelize';

/** What the shop has at hand decides which move is next: a change of its settings is one of the surroundings. */
export async function up(schema: QueryInterface): Promise<void> {
  await schema.sequelize.query(
    'CREATE TRIGGER shop_revise AFTER INSERT OR UPDATE ON shop FOR EACH STATEMENT EXECUTE FUNCTION surroundings_changed();',
  );
}

export async function down(schema: QueryInterface): Promise<void> {
  await schema.sequelize.query('DROP TRIGGER shop_revise ON shop;');
}
