import { DataTypes, type CreationOptional, type Sequelize } from 'sequelize';
import type { CheckPoint, Instrument } from '../../core/tire/gauge';
import type { Placard, Tpms } from '../../core/job';
import type { ShopSettings } from '../../core/records/shop';
import type { Receiver } from '../../core/car/uds/receiver';
import type { UnitChoice } from '../../core/measure/units';
import type { LegendCue } from '../../core/relearn/procedure';
import { Row, uuidKey, uuid, text, json, time, double, orNull } from './columns';

/** Tables of the shop itself: its people, its gauges, what it knows of vehicles and parts. */

export const roles = ['technician', 'adviser', 'manager'] as const;
export type Role = (typeof roles)[number];

export class TechnicianRow extends Row<TechnicianRow> {
  declare id: string;
  declare name: string;
  declare role: Role;
  declare passphraseHash: string;
  /** Null: no PIN. */
  declare pinHash: CreationOptional<string | null>;
  /** What makes the codes of the second factor, sealed; null: there is none. */
  declare secondFactor: CreationOptional<string | null>;
  /** The step of time of the code that was used last. */
  declare secondFactorStep: CreationOptional<string | null>;
  declare recoveryHashes: CreationOptional<string[]>;
  /** Null: as the shop. */
  declare units: UnitChoice | null;
  declare active: CreationOptional<boolean>;
  declare createdAt: CreationOptional<Date>;
}

export class SessionRow extends Row<SessionRow> {
  /** SHA-256 of the cookie's token: the token itself is not stored. */
  declare tokenHash: string;
  declare id: CreationOptional<string>;
  declare technicianId: string;
  declare startedAt: CreationOptional<Date>;
  declare expiresAt: Date;
  declare usedAt: CreationOptional<Date>;
  declare agent: CreationOptional<string>;
  /** The paired device it was started on with a PIN. */
  declare deviceId: CreationOptional<string | null>;
  /** The passphrase was right; the code of the second factor is still to come. */
  declare awaitsCode: CreationOptional<boolean>;
}

/** A device on which a PIN is enough. */
export class PairedDeviceRow extends Row<PairedDeviceRow> {
  declare id: string;
  /** SHA-256 of its cookie's token. */
  declare tokenHash: string;
  declare name: string;
  declare pairedAt: CreationOptional<Date>;
  declare pairedBy: string;
  declare lastSeenAt: CreationOptional<Date | null>;
  declare unpairedAt: CreationOptional<Date | null>;
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
  /** A cue of the next version, where it was said what it means. */
  declare proposes: LegendCue | null;
}

/** What was said to what a flag proposes. */
export class ProcedureFlagAnswerRow extends Row<ProcedureFlagAnswerRow> {
  declare flagKey: string;
  declare at: Date;
  declare by: string;
  /** The version it became; null: it was left. */
  declare takenAs: number | null;
}

export class PartRow extends Row<PartRow> {
  declare name: string;
  /** As it stands in the catalogue's file. */
  declare body: object;
  declare at: Date;
  declare by: string;
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

export function defineShopModels(sequelize: Sequelize): void {
  TechnicianRow.init(
    {
      id: uuidKey(),
      name: text(),
      role: text(),
      passphraseHash: text(),
      pinHash: orNull(text()),
      secondFactor: orNull(text()),
      secondFactorStep: { type: DataTypes.BIGINT, allowNull: true },
      recoveryHashes: { type: DataTypes.ARRAY(DataTypes.TEXT), defaultValue: [] },
      units: orNull(json()),
      active: { type: DataTypes.BOOLEAN, defaultValue: true },
      createdAt: { ...time(), defaultValue: DataTypes.NOW },
    },
    { sequelize, tableName: 'technicians' },
  );
  SessionRow.init(
    {
      tokenHash: { ...text(), primaryKey: true },
      id: { ...uuid(), defaultValue: DataTypes.UUIDV4 },
      technicianId: uuid(),
      startedAt: { ...time(), defaultValue: DataTypes.NOW },
      expiresAt: time(),
      usedAt: { ...time(), defaultValue: DataTypes.NOW },
      agent: { ...text(), defaultValue: '' },
      deviceId: orNull(uuid()),
      awaitsCode: { type: DataTypes.BOOLEAN, defaultValue: false },
    },
    { sequelize, tableName: 'sessions' },
  );
  PairedDeviceRow.init(
    {
      id: uuidKey(),
      tokenHash: text(),
      name: text(),
      pairedAt: { ...time(), defaultValue: DataTypes.NOW },
      pairedBy: text(),
      lastSeenAt: orNull(time()),
      unpairedAt: orNull(time()),
    },
    { sequelize, tableName: 'paired_devices' },
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
      proposes: orNull(json()),
    },
    { sequelize, tableName: 'procedure_flags' },
  );
  ProcedureFlagAnswerRow.init(
    { flagKey: uuidKey(), at: time(), by: text(), takenAs: orNull({ type: DataTypes.INTEGER }) },
    { sequelize, tableName: 'procedure_flag_answers' },
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
