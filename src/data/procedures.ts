import { QueryTypes } from 'sequelize';
import type { Procedure } from '../core/relearn/procedure';
import { procedureSchema } from '../core/relearn/procedure/schema';
import { database, type Tx } from './database';
import { ProcedureFlagAnswerRow, ProcedureFlagRow, ProcedureRow } from './models';

/** A procedure as it is kept: its latest version, by whom and when that was taken in. */
export interface StoredProcedure {
  version: number;
  at: string;
  by: string;
  procedure: Procedure;
}

const storedFrom = ({ version, at, by, body }: Pick<ProcedureRow, 'version' | 'at' | 'by' | 'body'>) => ({
  version,
  at: at.toISOString(),
  by,
  procedure: procedureSchema.parse(body),
});

/** The latest version of each, by name. */
export async function listProcedures(tx: Tx): Promise<StoredProcedure[]> {
  const rows = await database().query(
    'SELECT DISTINCT ON (name) version, at, by, body FROM procedures ORDER BY name, version DESC',
    { model: ProcedureRow, mapToModel: true, type: QueryTypes.SELECT, transaction: tx },
  );
  return rows.map(storedFrom);
}

export async function findProcedure(
  tx: Tx,
  name: string,
  version?: number,
): Promise<StoredProcedure | undefined> {
  const row = await ProcedureRow.findOne({
    where: { name, ...(version !== undefined && { version }) },
    order: [['version', 'DESC']],
    transaction: tx,
  });
  return row ? storedFrom(row) : undefined;
}

/** All versions of a procedure, the first first; their numbers go up by one. */
export async function versionsOf(tx: Tx, name: string): Promise<Procedure[]> {
  const rows = await ProcedureRow.findAll({
    where: { name },
    order: [['version', 'ASC']],
    transaction: tx,
  });
  return rows.map(({ body }) => procedureSchema.parse(body));
}

/** What was found wrong with procedures, the newest first, with what was said to it. */
export async function listFlags(tx: Tx) {
  const flags = await ProcedureFlagRow.findAll({ order: [['at', 'DESC']], raw: true, transaction: tx });
  const answers = await ProcedureFlagAnswerRow.findAll({ raw: true, transaction: tx });
  const answerTo = new Map(answers.map((answer) => [answer.flagKey, answer]));
  return flags.map((flag) => ({ ...flag, answer: answerTo.get(flag.key) }));
}

export const findFlagAnswer = (tx: Tx, flagKey: string) =>
  ProcedureFlagAnswerRow.findByPk(flagKey, { transaction: tx });

export const addFlagAnswer = (tx: Tx, answer: Pick<ProcedureFlagAnswerRow, 'flagKey' | 'by' | 'takenAs'>) =>
  ProcedureFlagAnswerRow.create({ ...answer, at: new Date() }, { transaction: tx });

export const findFlag = (tx: Tx, key: string) => ProcedureFlagRow.findByPk(key, { transaction: tx });

export const addFlag = (
  tx: Tx,
  flag: Pick<
    ProcedureFlagRow,
    'key' | 'name' | 'version' | 'runKey' | 'by' | 'step' | 'instead' | 'proposes'
  >,
) => ProcedureFlagRow.create({ ...flag, at: new Date() }, { transaction: tx });

/** All versions of a name wait for one another from here to the end of the transaction. */
export const lockName = (tx: Tx, name: string) =>
  database().query('SELECT pg_advisory_xact_lock(hashtextextended($1, 0))', {
    bind: [`procedure ${name}`],
    type: QueryTypes.SELECT,
    transaction: tx,
  });

export const addVersion = (tx: Tx, version: number, by: string, procedure: Procedure) =>
  ProcedureRow.create(
    { name: procedure.name, version, at: new Date(), by, body: procedure },
    { transaction: tx },
  );
