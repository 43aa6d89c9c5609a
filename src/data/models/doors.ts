import { DataTypes, type CreationOptional, type Sequelize } from 'sequelize';
import { Row, uuidKey, uuid, text, json, time, orNull } from './columns';

/** Tables of what comes in and goes out by itself. */

export class CustomerImportRow extends Row<CustomerImportRow> {
  declare key: string;
  /** Of the file. */
  declare name: string;
  declare at: CreationOptional<Date>;
  declare by: string;
  /** New ones, and cars that nobody owned. */
  declare customers: number;
  declare cars: number;
  declare given: number;
  declare undoneAt: CreationOptional<Date | null>;
  declare undoneBy: CreationOptional<string | null>;
}

/** What a list made: so that it can be taken out again. */
export class CustomerImportedRow extends Row<CustomerImportedRow> {
  declare importKey: string;
  declare kind: 'customer' | 'car' | 'given';
  declare id: string;
  /** Whom a car was given to. */
  declare owner: CreationOptional<string | null>;
}

export class ApiTokenRow extends Row<ApiTokenRow> {
  declare id: string;
  /** SHA-256 of the token. */
  declare tokenHash: string;
  declare name: string;
  declare madeAt: CreationOptional<Date>;
  declare madeBy: string;
  declare usedAt: CreationOptional<Date | null>;
  declare endedAt: CreationOptional<Date | null>;
  declare endedBy: CreationOptional<string | null>;
}

export class WebhookRow extends Row<WebhookRow> {
  declare id: string;
  declare url: string;
  declare secret: string;
  declare madeAt: CreationOptional<Date>;
  declare madeBy: string;
  declare endedAt: CreationOptional<Date | null>;
  declare endedBy: CreationOptional<string | null>;
}

export class WebhookDeliveryRow extends Row<WebhookDeliveryRow> {
  declare key: string;
  declare webhookId: string;
  declare jobId: string;
  declare body: object;
  declare at: CreationOptional<Date>;
  declare tries: CreationOptional<number>;
  /** Null: told, or given up. */
  declare nextAt: CreationOptional<Date | null>;
  declare toldAt: CreationOptional<Date | null>;
  declare answer: CreationOptional<string | null>;
}

const ended = () => ({ endedAt: orNull(time()), endedBy: orNull(text()) });

export function defineDoorModels(sequelize: Sequelize): void {
  const count = () => ({ type: DataTypes.INTEGER, allowNull: false });
  const now = () => ({ ...time(), defaultValue: DataTypes.NOW });
  CustomerImportRow.init(
    {
      key: uuidKey(),
      name: text(),
      at: now(),
      by: text(),
      customers: count(),
      cars: count(),
      given: count(),
      undoneAt: orNull(time()),
      undoneBy: orNull(text()),
    },
    { sequelize, tableName: 'customer_imports' },
  );
  CustomerImportedRow.init(
    {
      importKey: { ...uuid(), primaryKey: true },
      kind: { ...text(), primaryKey: true },
      id: { ...uuid(), primaryKey: true },
      owner: orNull(uuid()),
    },
    { sequelize, tableName: 'customer_import_rows' },
  );
  ApiTokenRow.init(
    {
      id: uuidKey(),
      tokenHash: text(),
      name: text(),
      madeAt: now(),
      madeBy: text(),
      usedAt: orNull(time()),
      ...ended(),
    },
    { sequelize, tableName: 'api_tokens' },
  );
  WebhookRow.init(
    { id: uuidKey(), url: text(), secret: text(), madeAt: now(), madeBy: text(), ...ended() },
    { sequelize, tableName: 'webhooks' },
  );
  WebhookDeliveryRow.init(
    {
      key: uuidKey(),
      webhookId: uuid(),
      jobId: uuid(),
      body: json(),
      at: now(),
      tries: { ...count(), defaultValue: 0 },
      nextAt: { ...orNull(time()), defaultValue: DataTypes.NOW },
      toldAt: orNull(time()),
      answer: orNull(text()),
    },
    { sequelize, tableName: 'webhook_deliveries' },
  );
}
