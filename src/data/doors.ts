import { Op, QueryTypes } from 'sequelize';
import { database, type Tx } from './database';
import { ApiTokenRow, WebhookDeliveryRow, WebhookRow } from './models';

/** Programs that read, and addresses that are told. */

export type { ApiTokenRow, WebhookRow };

export const addToken = (tx: Tx, values: Pick<ApiTokenRow, 'id' | 'tokenHash' | 'name' | 'madeBy'>) =>
  ApiTokenRow.create(values, { transaction: tx });

export const listTokens = (tx: Tx) =>
  ApiTokenRow.findAll({ order: [['madeAt', 'DESC']], raw: true, transaction: tx });

export const findToken = (tx: Tx, id: string) =>
  ApiTokenRow.findByPk(id, { transaction: tx, lock: tx.LOCK.UPDATE });

/** Of a token that is in use, whose use is noted once a minute. */
export async function tokenInUse(tx: Tx, tokenHash: string): Promise<ApiTokenRow | undefined> {
  const row = await ApiTokenRow.findOne({ where: { tokenHash, endedAt: null }, transaction: tx });
  if (row && Date.now() - (row.usedAt?.getTime() ?? 0) > 60_000)
    await row.update({ usedAt: new Date() }, { transaction: tx });
  return row ?? undefined;
}

export const addWebhook = (tx: Tx, values: Pick<WebhookRow, 'id' | 'url' | 'secret' | 'madeBy'>) =>
  WebhookRow.create(values, { transaction: tx });

export const findWebhook = (tx: Tx, id: string) =>
  WebhookRow.findByPk(id, { transaction: tx, lock: tx.LOCK.UPDATE });

export const webhooksInUse = (tx: Tx) =>
  WebhookRow.findAll({ where: { endedAt: null }, raw: true, transaction: tx });

/** An address with how its last news went. */
interface WebhookState {
  id: string;
  url: string;
  madeAt: Date;
  madeBy: string;
  /** News that arrived, that wait, and that were given up. */
  told: number;
  waiting: number;
  givenUp: number;
  /** What was answered last, and when it is tried again. */
  answer: string | null;
  nextAt: Date | null;
}

export const webhookStates = (tx: Tx): Promise<WebhookState[]> =>
  database().query<WebhookState>(
    `SELECT webhooks.id, url, made_at AS "madeAt", made_by AS "madeBy",
       count(*) FILTER (WHERE told_at IS NOT NULL)::int AS told,
       count(*) FILTER (WHERE next_at IS NOT NULL)::int AS waiting,
       count(*) FILTER (WHERE told_at IS NULL AND next_at IS NULL AND tries > 0)::int AS "givenUp",
       (array_agg(answer ORDER BY webhook_deliveries.at DESC) FILTER (WHERE answer IS NOT NULL))[1] AS answer,
       min(next_at) AS "nextAt"
     FROM webhooks LEFT JOIN webhook_deliveries ON webhook_id = webhooks.id
     WHERE ended_at IS NULL GROUP BY webhooks.id ORDER BY made_at`,
    { type: QueryTypes.SELECT, transaction: tx },
  );

/** One news of a job to an address, however often it is noted. */
export const noteNews = (tx: Tx, values: Pick<WebhookDeliveryRow, 'key' | 'webhookId' | 'jobId' | 'body'>) =>
  WebhookDeliveryRow.create(values, { transaction: tx });

/** News to an address that is told no more. */
export const dropNews = (tx: Tx, webhookId: string) =>
  WebhookDeliveryRow.update(
    { nextAt: null },
    { where: { webhookId, nextAt: { [Op.ne]: null } }, transaction: tx },
  );

/** All that was given up or waits is tried again now. */
export const tryAgainNow = (tx: Tx, webhookId: string) =>
  WebhookDeliveryRow.update(
    { nextAt: new Date(), tries: 0 },
    { where: { webhookId, toldAt: null }, transaction: tx },
  );

export interface DueNews {
  key: string;
  body: object;
  tries: number;
  url: string;
  secret: string;
}

const atOnce = 10;

/**
 * Takes what is due: nobody else sends it until `againMs` later, so that it is tried again though whoever took it is lost.
 */
export async function takeDueNews(againMs: number): Promise<DueNews[]> {
  return database().query<DueNews>(
    `UPDATE webhook_deliveries AS news SET tries = tries + 1, next_at = now() + $again * interval '1 millisecond'
     FROM webhooks WHERE webhooks.id = webhook_id AND key IN (
       SELECT key FROM webhook_deliveries WHERE next_at <= now() ORDER BY next_at LIMIT ${atOnce} FOR UPDATE SKIP LOCKED
     ) RETURNING key, body, tries, url, secret`,
    { bind: { again: againMs }, type: QueryTypes.SELECT },
  );
}

export const noteAnswer = (
  key: string,
  said: { answer: string; toldAt: Date | null; nextAt: Date | null },
): Promise<unknown> => WebhookDeliveryRow.update(said, { where: { key, toldAt: null } });
