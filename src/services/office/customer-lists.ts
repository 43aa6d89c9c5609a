import type { BroughtIn, CheckedList } from '../../contract/doors';
import { listChanged, unknownList } from '../../contract/refusals';
import { judgeList, readList, suggestMapping, type Mapping } from '../../core/records/customer-list';
import { planOf } from '../../core/records/customer-list/plan';
import { success, type Result } from '../../core/result';
import { inTransaction, type Tx } from '../../data/database';
import * as imports from '../../data/customer-imports';
import { refuseUnless, type Person } from '../people';

/** Customer lists of other programs: looked at first, brought in whole, taken out again. */

const mostTold = 2000;
const sampleRows = 5;

/** What would come of a list. Nothing is changed. Problems: `not-allowed`, `not-a-list`. */
export async function checkList(
  asked: { text: string; mapping?: Mapping | undefined },
  who: Person,
): Promise<Result<CheckedList>> {
  const refusal = refuseUnless(who, 'manage-shop');
  if (refusal) return refusal;
  const read = readList(asked.text);
  if (!read.ok) return read;
  const { header, rows } = read.value;
  const mapping = asked.mapping ?? suggestMapping(header);
  const { plan, leftOut } = await inTransaction((tx) => planIn(tx, read.value, mapping));
  return success({
    header,
    mapping,
    sample: rows.slice(0, sampleRows).map(({ cells }) => cells.slice(0, header.length)),
    rows: rows.length,
    customers: plan.customers.length,
    cars: plan.cars.length,
    given: plan.given.length,
    onFile: plan.onFile,
    leftOut: leftOut.length,
    refused: leftOut.slice(0, mostTold),
  });
}

/** What a list would do to what is on file now. */
async function planIn(tx: Tx, list: Parameters<typeof judgeList>[0], mapping: Mapping) {
  const { entries, refused } = judgeList(list, mapping, new Date().getFullYear());
  const plan = planOf(
    entries,
    await imports.customersNamed(tx, [...new Set(entries.map(({ name }) => name))]),
    await imports.carsWith(tx, {
      plates: entries.flatMap(({ vehicle }) => vehicle?.plate ?? []),
      vins: entries.flatMap(({ vehicle }) => vehicle?.vin ?? []),
    }),
  );
  return { plan, leftOut: [...refused, ...plan.refused].sort((a, b) => a.row - b.row) };
}

/** How far the list is that comes in now, for whoever watches; of this process. */
let running: { done: number; of: number } | undefined;

/**
 * All of a list or nothing of it; sent twice it is brought in once. Problems: `not-allowed`, `not-a-list`, and `list-changed`
 * where other rows would be left out than whoever asks was told.
 */
export async function bringInList(
  asked: { key: string; name: string; text: string; mapping: Mapping; leaveOut: number },
  who: Person,
): Promise<Result<BroughtIn>> {
  const refusal = refuseUnless(who, 'manage-shop');
  if (refusal) return refusal;
  const read = readList(asked.text);
  if (!read.ok) return read;
  try {
    return await inTransaction(async (tx) => {
      await imports.lockImports(tx);
      const before = await imports.findImport(tx, asked.key);
      if (before) return success(broughtIn(before));
      const { plan, leftOut } = await planIn(tx, read.value, asked.mapping);
      if (leftOut.length !== asked.leaveOut) return listChanged(leftOut.length);
      const of = plan.customers.length + plan.cars.length + plan.given.length;
      running = { done: 0, of };
      const { key, name } = asked;
      await imports.bringIn(tx, { key, name, by: who.name }, plan, (done) => {
        running = { done, of };
      });
      const made = await imports.findImport(tx, key);
      return made ? success(broughtIn(made)) : unknownList();
    });
  } finally {
    running = undefined;
  }
}

/** Problem: `not-allowed`. */
export async function customerLists(
  who: Person,
): Promise<Result<{ lists: BroughtIn[]; running: { done: number; of: number } | null }>> {
  const refusal = refuseUnless(who, 'manage-shop');
  if (refusal) return refusal;
  const lists = await inTransaction(imports.listImports);
  return success({ lists: lists.map(broughtIn), running: running ?? null });
}

/** Tells what stays because it was used since. Problems: `not-allowed`, `unknown-list`. */
export function takeOutList(key: string, who: Person): Promise<Result<{ cars: number; customers: number }>> {
  return inTransaction(async (tx) => {
    const refusal = refuseUnless(who, 'manage-shop');
    if (refusal) return refusal;
    const row = await imports.findImport(tx, key);
    if (!row) return unknownList();
    const stayed = await imports.takeOut(tx, key);
    if (!row.undoneAt) await row.update({ undoneAt: new Date(), undoneBy: who.name }, { transaction: tx });
    return success(stayed);
  });
}

const broughtIn = ({
  key,
  name,
  at,
  by,
  customers,
  cars,
  given,
  undoneAt,
  undoneBy,
}: imports.CustomerImportRow): BroughtIn => ({
  key,
  name,
  at: at.toISOString(),
  by,
  customers,
  cars,
  given,
  undone: undoneAt && { at: undoneAt.toISOString(), by: undoneBy ?? '' },
});
