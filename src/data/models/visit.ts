import type { ByFile } from '../../core/job/by-file';
import { DataTypes, type CreationOptional, type Sequelize } from 'sequelize';
import type { RepairOutcome } from '../../core/job/repair-outcome';
import type { CarWrite, Header, Observation } from '../../core/job';
import type { JobState } from '../../core/names/kinds';
import { Row, uuidKey, uuid, text, json, time, sequence, orNull } from './columns';

/** Tables of visits, and of what is seen and done at them. */

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
