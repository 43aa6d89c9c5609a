import { DataTypes, type CreationOptional, type Sequelize } from 'sequelize';
import type { Fitted, Placard, Tpms } from '../../core/job';
import type { FollowUpAbout } from '../../core/records/follow-up';
import type { Labelled } from '../../core/names/label';
import type { Position } from '../../core/names/wheel';
import type { Place, Season } from '../../core/records/wheel-set';
import { Row, uuidKey, uuid, text, json, time, double, sequence, orNull } from './columns';

/** Tables of vehicles, whose they are, and their wheels. */

export class VehicleRow extends Row<VehicleRow> {
  declare id: string;
  declare vin: string | null;
  declare plate: string | null;
  declare label: string;
  declare modelYear: number | null;
  declare profile: string | null;
  declare tpms: Tpms;
  declare placard: Placard;
  /** What is on it, as its sidewalls say; null where nobody read them. */
  declare fitted: CreationOptional<Fitted | null>;
  /** Whose it is, as was said last; null: nobody said. */
  declare customerId: CreationOptional<string | null>;
  /** The record that stays, where this one turned out to be of the same car. */
  declare mergedInto: CreationOptional<string | null>;
  declare updatedAt: CreationOptional<Date>;
}

/** Whose cars these are. */
export class CustomerRow extends Row<CustomerRow> {
  declare id: string;
  declare name: string;
  declare phone: string | null;
  declare email: string | null;
  declare createdAt: CreationOptional<Date>;
}

export class WheelSetRow extends Row<WheelSetRow> {
  declare id: string;
  declare vehicleId: string;
  declare label: string;
  declare season: CreationOptional<Season>;
  declare place: CreationOptional<Place>;
  declare rack: CreationOptional<string | null>;
  declare version: CreationOptional<number>;
}

/** A wheel of a set, with or without a sensor. */
export class WheelRow extends Row<WheelRow> {
  declare id: CreationOptional<string>;
  declare wheelSetId: string;
  declare sensorId: string | null;
  declare wheel: Position | null;
  /** When the sensor was new, as well as is known; its age follows. */
  declare newOn: Date | null;
  declare treadMm: CreationOptional<number | null>;
  declare dot: CreationOptional<string | null>;
  declare size: CreationOptional<string | null>;
}

/** What a label is on. */
export class LabelRow extends Row<LabelRow> {
  declare code: string;
  declare of: Labelled;
  declare vehicleId: string | null;
  declare wheelSetId: string | null;
  declare wheel: Position | null;
  declare sensorId: string | null;
  declare at: CreationOptional<Date>;
  declare by: string;
}

/** Something that is to be looked at again. */
export class FollowUpRow extends Row<FollowUpRow> {
  declare key: string;
  declare vehicleId: string;
  declare jobId: string | null;
  declare about: FollowUpAbout;
  declare wheel: Position | null;
  declare note: string;
  /** A day. */
  declare dueOn: string;
  declare at: CreationOptional<Date>;
  declare by: string;
  declare endedAt: CreationOptional<Date | null>;
  declare endedBy: CreationOptional<string | null>;
  declare outcome: CreationOptional<'done' | 'dropped' | null>;
  declare word: CreationOptional<string | null>;
}

/** Two records of one car that were put together, and what went over. */
export class MergeRow extends Row<MergeRow> {
  declare key: string;
  declare kept: string;
  declare gone: string;
  declare jobs: string[];
  declare sets: string[];
  declare plate: string | null;
  declare vin: string | null;
  declare at: CreationOptional<Date>;
  declare by: string;
  declare undoneAt: CreationOptional<Date | null>;
  declare undoneBy: CreationOptional<string | null>;
}

export function defineVehicleModels(sequelize: Sequelize): void {
  VehicleRow.init(
    {
      id: uuidKey(),
      vin: orNull(text()),
      plate: orNull(text()),
      label: text(),
      modelYear: orNull({ type: DataTypes.INTEGER }),
      profile: orNull(text()),
      tpms: json(),
      placard: json(),
      fitted: orNull(json()),
      customerId: orNull(uuid()),
      mergedInto: orNull(uuid()),
      updatedAt: { ...time(), defaultValue: DataTypes.NOW },
    },
    { sequelize, tableName: 'vehicles' },
  );
  CustomerRow.init(
    {
      id: uuidKey(),
      name: text(),
      phone: orNull(text()),
      email: orNull(text()),
      createdAt: { ...time(), defaultValue: DataTypes.NOW },
    },
    { sequelize, tableName: 'customers' },
  );
  WheelSetRow.init(
    {
      id: uuidKey(),
      vehicleId: uuid(),
      label: text(),
      season: { ...text(), defaultValue: 'all-season' },
      place: { ...text(), defaultValue: 'customer' },
      rack: orNull(text()),
      version: { type: DataTypes.INTEGER, allowNull: false, defaultValue: 1 },
    },
    { sequelize, tableName: 'wheel_sets' },
  );
  WheelRow.init(
    {
      id: sequence(),
      wheelSetId: uuid(),
      sensorId: orNull(text()),
      wheel: orNull(text()),
      newOn: { type: DataTypes.DATEONLY, allowNull: true },
      treadMm: orNull(double()),
      dot: orNull(text()),
      size: orNull(text()),
    },
    { sequelize, tableName: 'wheels' },
  );
  LabelRow.init(
    {
      code: { ...text(), primaryKey: true },
      of: text(),
      vehicleId: orNull(uuid()),
      wheelSetId: orNull(uuid()),
      wheel: orNull(text()),
      sensorId: orNull(text()),
      at: { ...time(), defaultValue: DataTypes.NOW },
      by: text(),
    },
    { sequelize, tableName: 'labels' },
  );
  FollowUpRow.init(
    {
      key: uuidKey(),
      vehicleId: uuid(),
      jobId: orNull(uuid()),
      about: text(),
      wheel: orNull(text()),
      note: text(),
      dueOn: { type: DataTypes.DATEONLY, allowNull: false },
      at: { ...time(), defaultValue: DataTypes.NOW },
      by: text(),
      endedAt: orNull(time()),
      endedBy: orNull(text()),
      outcome: orNull(text()),
      word: orNull(text()),
    },
    { sequelize, tableName: 'follow_ups' },
  );
  MergeRow.init(
    {
      key: uuidKey(),
      kept: uuid(),
      gone: uuid(),
      jobs: { type: DataTypes.ARRAY(DataTypes.UUID), allowNull: false },
      sets: { type: DataTypes.ARRAY(DataTypes.UUID), allowNull: false },
      plate: orNull(text()),
      vin: orNull(text()),
      at: { ...time(), defaultValue: DataTypes.NOW },
      by: text(),
      undoneAt: orNull(time()),
      undoneBy: orNull(text()),
    },
    { sequelize, tableName: 'merges' },
  );
}
