import { DataTypes, Model, type InferAttributes, type InferCreationAttributes } from 'sequelize';

/** A row of a table, with its attributes as its class declares them. */
export class Row<Self extends Model> extends Model<InferAttributes<Self>, InferCreationAttributes<Self>> {}

// Functions: Sequelize writes into a definition, so no two columns may share one.
export const uuidKey = () => ({ type: DataTypes.UUID, primaryKey: true, allowNull: false });
export const uuid = () => ({ type: DataTypes.UUID, allowNull: false });
export const text = () => ({ type: DataTypes.TEXT, allowNull: false });
export const json = () => ({ type: DataTypes.JSONB, allowNull: false });
export const time = () => ({ type: DataTypes.DATE, allowNull: false });
export const double = () => ({ type: DataTypes.DOUBLE, allowNull: false });
export const sequence = () => ({ type: DataTypes.BIGINT, primaryKey: true, autoIncrement: true });
export const orNull = <Column extends object>(column: Column) => ({ ...column, allowNull: true });
