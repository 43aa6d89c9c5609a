import type { Sequelize } from 'sequelize';
import { defineDoorModels } from './doors';
import { defineShopModels } from './shop';
import { defineVehicleModels } from './vehicle';
import { defineVisitModels } from './visit';

/** Tables as Sequelize sees them. The migrations make them; this must agree with the last of those. */
export * from './doors';
export * from './shop';
export * from './vehicle';
export * from './visit';

export function defineModels(sequelize: Sequelize): void {
  defineDoorModels(sequelize);
  defineShopModels(sequelize);
  defineVehicleModels(sequelize);
  defineVisitModels(sequelize);
}
