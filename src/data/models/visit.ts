import type { ByFile } from '../../core/by-file';
import { DataTypes, type CreationOptional, type Sequelize } from 'sequelize';
import type { RepairOutcome } from '../../core/repair-outcome';
import type { CarWrite, Fitted, Header, Observation, Placard, Tpms } from '../../core/job';
import type { JobState } from '../../core/visit/view';
import type { FollowUpAbout } from '../../core/follow-up';
import type { Labelled } from '../../core/label';
import type { Position } from '../../core/wheel';
import type { Place, Season } from '../../core/wheel-set';
import { Row, uuidKey, uuid, text, json, time, double, sequence, orNull } from './columns';

/** Tables of vehicles and of what is done at them. */

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

export class JobRow extends Row<JobRow> {
  declare id: string;
  declare number: CreationOptional<number>;
  declare key: string;
  declare vehicleId: string;
  declare state: JobState;
  /** Counts changes of the header and of the state; a change must name the version it was made on. */
  declare version: number;
  /** Counts all that was recorded on the job and corrected about it; the database keeps it. */
  declare revision: CreationOptional<string>;
  declare header: Header;
  declare openedBy: string;
  declare openedAt: Date;
  declare handedOverAt: Date | null;
  declare handedOverBy: string | null;
  declare cancelledAt: CreationOptional<Date | null>;
}

/** An observation that was recorded by mistake. */
export class TakenBackRow extends Row<TakenBackRow> {
  declare observationKey: string;
  declare jobId: string;
  declare at: Date;
  declare by: string;
  declare reason: string;
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
  /** Null for one that was led here. */
  declare byFile: ByFile | null;
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
  declare byFile: ByFile | null;
}

export function defineVisitModels(sequelize: Sequelize): void {
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
      cancelledAt: orNull(time()),
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
  TakenBackRow.init(
    {
      observationKey: { ...uuid(), primaryKey: true },
      jobId: uuid(),
      at: time(),
      by: text(),
      reason: text(),
    },
    { sequelize, tableName: 'taken_back' },
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
      byFile: orNull(json()),
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
    {
      seq: sequence(),
      key: uuid(),
      jobId: uuid(),
      at: time(),
      by: text(),
      parts: json(),
      byFile: orNull(json()),
    },
    { sequelize, tableName: 'confirmations' },
  );
}
