import {
  DataTypes,
  Model,
  type CreationOptional,
  type InferAttributes,
  type InferCreationAttributes,
  type Sequelize,
} from 'sequelize';
import type { RepairOutcome } from '../../core/repair-outcome';
import type { CheckPoint, Instrument } from '../../core/gauge';
import type { CarWrite, Fitted, Header, Observation, Placard, Tpms } from '../../core/job';
import type { ShopSettings } from '../../core/shop';
import type { Receiver } from '../../core/uds/receiver';
import type { UnitChoice } from '../../core/units';
import type { Position } from '../../core/wheel';

/** Tables as Sequelize sees them. The migrations make them; this must agree with the last of those. */

export const roles = ['technician', 'adviser', 'manager'] as const;
export type Role = (typeof roles)[number];

class Row<Self extends Model> extends Model<InferAttributes<Self>, InferCreationAttributes<Self>> {}

export class TechnicianRow extends Row<TechnicianRow> {
  declare id: string;
  declare name: string;
  declare role: Role;
  declare passphraseHash: string;
  /** Null: as the shop. */
  declare units: UnitChoice | null;
  declare active: CreationOptional<boolean>;
  declare createdAt: CreationOptional<Date>;
}

export class SessionRow extends Row<SessionRow> {
  /** SHA-256 of the cookie's token: the token itself is not stored. */
  declare tokenHash: string;
  declare technicianId: string;
  declare expiresAt: Date;
}

export class ProfileRow extends Row<ProfileRow> {
  declare name: string;
  declare label: string;
  declare fromYear: number | null;
  declare toYear: number | null;
  declare tpms: Tpms;
  declare placard: Placard;
  declare receiver: Receiver | null;
}

export class ProcedureRow extends Row<ProcedureRow> {
  declare name: string;
  declare version: number;
  declare at: Date;
  declare by: string;
  /** A procedure file, as it was taken in. */
  declare body: object;
}

export class ProcedureFlagRow extends Row<ProcedureFlagRow> {
  declare key: string;
  declare name: string;
  /** Of the procedure, where it was known. */
  declare version: number | null;
  declare runKey: string;
  declare at: Date;
  declare by: string;
  /** Where in it, in words. */
  declare step: string;
  /** What the car did instead. */
  declare instead: string;
}

export class PartRow extends Row<PartRow> {
  declare name: string;
  /** As it stands in the catalogue's file. */
  declare body: object;
  declare at: Date;
  declare by: string;
}

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
  declare updatedAt: CreationOptional<Date>;
}

export class WheelSetRow extends Row<WheelSetRow> {
  declare id: string;
  declare vehicleId: string;
  declare label: string;
  /** The set that is on the car. */
  declare fitted: boolean;
}

export class SensorRow extends Row<SensorRow> {
  declare id: CreationOptional<string>;
  declare wheelSetId: string;
  declare sensorId: string;
  declare wheel: Position | null;
  /** When the sensor was new, as well as is known; its age follows. */
  declare newOn: Date | null;
}

export class JobRow extends Row<JobRow> {
  declare id: string;
  declare number: CreationOptional<number>;
  declare key: string;
  declare vehicleId: string;
  declare state: 'open' | 'handed-over';
  /** Counts changes of the header and of the state; a change must name the version it was made on. */
  declare version: number;
  /** Counts all that was recorded on the job and corrected about it; the database keeps it. */
  declare revision: CreationOptional<string>;
  declare header: Header;
  declare openedBy: string;
  declare openedAt: Date;
  declare handedOverAt: Date | null;
  declare handedOverBy: string | null;
}

export class JobEditRow extends Row<JobEditRow> {
  declare jobId: string;
  /** The version this edit made. */
  declare version: number;
  declare key: string;
  declare at: Date;
  declare by: string;
  declare changes: { field: string; from: unknown; to: unknown }[];
}

export class ObservationRow extends Row<ObservationRow> {
  declare seq: CreationOptional<string>;
  declare key: string;
  declare jobId: string;
  declare kind: string;
  declare at: Date;
  declare body: Observation;
  /** The key of the observation this one puts right. */
  declare replaces: string | null;
  declare recordedBy: string;
  declare recordedAt: CreationOptional<Date>;
}

export class CarWriteRow extends Row<CarWriteRow> {
  declare seq: CreationOptional<string>;
  declare key: string;
  declare jobId: string;
  declare kind: CarWrite['kind'];
  declare askedAt: Date;
  declare answeredAt: Date | null;
  declare answer: 'yes' | 'no' | 'lost' | null;
  declare readBackAt: Date | null;
  /** The write as it stands in the job file. */
  declare body: CarWrite;
  declare askedBy: string;
}

export class RunRow extends Row<RunRow> {
  declare key: string;
  declare seq: CreationOptional<string>;
  declare jobId: string;
  declare vehicleId: string;
  /** The procedure as it was when the run began. */
  declare procedure: object;
  declare startedAt: Date;
  declare by: string;
  /** Null while it goes on. */
  declare endedAt: Date | null;
}

export class RunEventRow extends Row<RunEventRow> {
  declare seq: CreationOptional<string>;
  declare key: string;
  declare runKey: string;
  declare jobId: string;
  /** The event as it stands in the job file. */
  declare body: object;
  declare at: CreationOptional<Date>;
}

export class SensorServiceRow extends Row<SensorServiceRow> {
  declare key: string;
  declare seq: CreationOptional<string>;
  declare jobId: string;
  /** As it stands in the job file, but for the picture. */
  declare body: object;
  /** A data URL; fetched only where it is shown. */
  declare photo: string | null;
  declare at: CreationOptional<Date>;
}

export class ConfirmationRow extends Row<ConfirmationRow> {
  declare seq: CreationOptional<string>;
  declare key: string;
  declare jobId: string;
  declare at: Date;
  declare by: string;
  /** None: what was said before is taken back. */
  declare parts: RepairOutcome[];
}

/** One row: what holds for the whole shop. */
export class ShopRow extends Row<ShopRow> {
  declare id: number;
  declare settings: ShopSettings;
  declare updatedAt: CreationOptional<Date>;
  declare updatedBy: string;
}

export class GaugeRow extends Row<GaugeRow> {
  declare id: string;
  declare name: string;
  declare kind: Instrument['kind'];
  // The column cannot be told from the name: it would become resolution_k_pa.
  declare resolutionKPa: number;
  declare retired: CreationOptional<boolean>;
  declare createdAt: CreationOptional<Date>;
}

export class GaugeCheckRow extends Row<GaugeCheckRow> {
  declare key: string;
  declare gaugeId: string;
  declare at: Date;
  declare by: string;
  declare reference: string;
  declare referenceUncertaintyKPa: number;
  declare points: CheckPoint[];
}

export function defineModels(sequelize: Sequelize): void {
  // Functions: Sequelize writes into a definition, so no two columns may share one.
  const uuidKey = () => ({ type: DataTypes.UUID, primaryKey: true, allowNull: false });
  const uuid = () => ({ type: DataTypes.UUID, allowNull: false });
  const text = () => ({ type: DataTypes.TEXT, allowNull: false });
  const json = () => ({ type: DataTypes.JSONB, allowNull: false });
  const time = () => ({ type: DataTypes.DATE, allowNull: false });
  const double = () => ({ type: DataTypes.DOUBLE, allowNull: false });
  const sequence = () => ({ type: DataTypes.BIGINT, primaryKey: true, autoIncrement: true });
  const orNull = <Column extends object>(column: Column) => ({ ...column, allowNull: true });

  TechnicianRow.init(
    {
      id: uuidKey(),
      name: text(),
      role: text(),
      passphraseHash: text(),
      units: orNull(json()),
      active: { type: DataTypes.BOOLEAN, defaultValue: true },
      createdAt: { ...time(), defaultValue: DataTypes.NOW },
    },
    { sequelize, tableName: 'technicians' },
  );
  SessionRow.init(
    { tokenHash: { ...text(), primaryKey: true }, technicianId: uuid(), expiresAt: time() },
    { sequelize, tableName: 'sessions' },
  );
  ProfileRow.init(
    {
      name: { ...text(), primaryKey: true },
      label: text(),
      fromYear: orNull({ type: DataTypes.INTEGER }),
      toYear: orNull({ type: DataTypes.INTEGER }),
      tpms: json(),
      placard: json(),
      receiver: orNull(json()),
    },
    { sequelize, tableName: 'profiles' },
  );
  ProcedureFlagRow.init(
    {
      key: uuidKey(),
      name: text(),
      version: orNull({ type: DataTypes.INTEGER }),
      runKey: uuid(),
      at: time(),
      by: text(),
      step: text(),
      instead: text(),
    },
    { sequelize, tableName: 'procedure_flags' },
  );
  PartRow.init(
    { name: { ...text(), primaryKey: true }, body: json(), at: time(), by: text() },
    { sequelize, tableName: 'parts' },
  );
  ProcedureRow.init(
    {
      name: { ...text(), primaryKey: true },
      version: { type: DataTypes.INTEGER, allowNull: false, primaryKey: true },
      at: time(),
      by: text(),
      body: json(),
    },
    { sequelize, tableName: 'procedures' },
  );
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
      updatedAt: { ...time(), defaultValue: DataTypes.NOW },
    },
    { sequelize, tableName: 'vehicles' },
  );
  WheelSetRow.init(
    {
      id: uuidKey(),
      vehicleId: uuid(),
      label: text(),
      fitted: { type: DataTypes.BOOLEAN, allowNull: false },
    },
    { sequelize, tableName: 'wheel_sets' },
  );
  SensorRow.init(
    {
      id: sequence(),
      wheelSetId: uuid(),
      sensorId: text(),
      wheel: orNull(text()),
      newOn: orNull({ type: DataTypes.DATEONLY }),
    },
    { sequelize, tableName: 'sensors' },
  );
  JobRow.init(
    {
      id: uuidKey(),
      number: { type: DataTypes.INTEGER, autoIncrement: true },
      key: uuid(),
      vehicleId: uuid(),
      state: text(),
      version: { type: DataTypes.INTEGER, allowNull: false },
      revision: { type: DataTypes.BIGINT, defaultValue: 1 },
      header: json(),
      openedBy: text(),
      openedAt: time(),
      handedOverAt: orNull(time()),
      handedOverBy: orNull(text()),
    },
    { sequelize, tableName: 'jobs' },
  );
  JobEditRow.init(
    {
      jobId: { ...uuid(), primaryKey: true },
      version: { type: DataTypes.INTEGER, primaryKey: true },
      key: uuid(),
      at: time(),
      by: text(),
      changes: json(),
    },
    { sequelize, tableName: 'job_edits' },
  );
  ObservationRow.init(
    {
      seq: sequence(),
      key: uuid(),
      jobId: uuid(),
      kind: text(),
      at: time(),
      body: json(),
      replaces: orNull(uuid()),
      recordedBy: text(),
      recordedAt: { ...time(), defaultValue: DataTypes.NOW },
    },
    { sequelize, tableName: 'observations' },
  );
  CarWriteRow.init(
    {
      seq: sequence(),
      key: uuid(),
      jobId: uuid(),
      kind: text(),
      askedAt: time(),
      answeredAt: orNull(time()),
      answer: orNull(text()),
      readBackAt: orNull(time()),
      body: json(),
      askedBy: text(),
    },
    { sequelize, tableName: 'car_writes' },
  );
  SensorServiceRow.init(
    {
      key: uuidKey(),
      seq: { type: DataTypes.BIGINT, autoIncrement: true },
      jobId: uuid(),
      body: json(),
      photo: orNull(text()),
      at: { ...time(), defaultValue: DataTypes.NOW },
    },
    { sequelize, tableName: 'sensor_services' },
  );
  RunRow.init(
    {
      key: uuidKey(),
      seq: { type: DataTypes.BIGINT, autoIncrement: true },
      jobId: uuid(),
      vehicleId: uuid(),
      procedure: json(),
      startedAt: time(),
      by: text(),
      endedAt: orNull(time()),
    },
    { sequelize, tableName: 'runs' },
  );
  RunEventRow.init(
    {
      seq: sequence(),
      key: uuid(),
      runKey: uuid(),
      jobId: uuid(),
      body: json(),
      at: { ...time(), defaultValue: DataTypes.NOW },
    },
    { sequelize, tableName: 'run_events' },
  );
  ConfirmationRow.init(
    { seq: sequence(), key: uuid(), jobId: uuid(), at: time(), by: text(), parts: json() },
    { sequelize, tableName: 'confirmations' },
  );
  ShopRow.init(
    {
      id: { type: DataTypes.SMALLINT, primaryKey: true },
      settings: json(),
      updatedAt: { ...time(), defaultValue: DataTypes.NOW },
      updatedBy: text(),
    },
    { sequelize, tableName: 'shop' },
  );
  GaugeRow.init(
    {
      id: uuidKey(),
      name: text(),
      kind: text(),
      resolutionKPa: { ...double(), field: 'resolution_kpa' },
      retired: { type: DataTypes.BOOLEAN, defaultValue: false },
      createdAt: { ...time(), defaultValue: DataTypes.NOW },
    },
    { sequelize, tableName: 'gauges' },
  );
  GaugeCheckRow.init(
    {
      key: uuidKey(),
      gaugeId: uuid(),
      at: time(),
      by: text(),
      reference: text(),
      referenceUncertaintyKPa: { ...double(), field: 'reference_uncertainty_kpa' },
      points: json(),
    },
    { sequelize, tableName: 'gauge_checks' },
  );
}
