import type { z } from 'zod';
import { shopFiguresAsked } from '../../contract/figures';
import { tracesAsked } from '../../contract/doors';
import { jobFilterSchema } from '../../contract/memory';
import { invalidInput, unknownTable } from '../../contract/refusals';
import { issuesOf } from '../../core/result/issues';
import { success, type Result } from '../../core/result';
import { calibrationStatusOf, calibrationStatusWords, type Instrument } from '../../core/tire/gauge';
import type { ListedJob } from '../../core/records/search';
import { tableNames as figureNames } from '../../core/records/shop-figures';
import type { Table } from '../../core/records/table';
import {
  customersTable,
  followUpsTable,
  gaugesTable,
  jobsTable,
  storedSetsTable,
  type ListedGauge,
} from '../../core/records/table/lists';
import { inTransaction } from '../../data/database';
import { listCustomers } from '../../data/customers';
import { storedSets } from '../../data/wheel-sets';
import { dueFollowUps } from '../follow-ups';
import { register } from '../gauges';
import type { Person } from '../people';
import { traces } from '../looks';
import { listJobs } from '../search';
import { figuresOfShop } from './shop-figures';

/** Every list of the shop as a table that can be taken away, by its name, narrowed as the screen is. */
type Source = (asked: unknown, who: Person) => Promise<Result<Table>>;

const source =
  <Query extends z.ZodType>(
    query: Query,
    table: (asked: z.infer<Query>, who: Person) => Promise<Result<Table>>,
  ): Source =>
  async (asked, who) => {
    const parsed = query.safeParse(asked);
    return parsed.success ? table(parsed.data, who) : invalidInput(issuesOf(parsed.error));
  };

const sources: ReadonlyMap<string, Source> = new Map([
  ['jobs', source(jobFilterSchema, async (filter) => success(jobsTable(await jobsLike(filter))))],
  ['follow-ups', async () => success(followUpsTable(await dueFollowUps()))],
  ['customers', async () => success(customersTable(await inTransaction(listCustomers)))],
  ['gauges', async () => success(gaugesTable(listedGauges(await register(), Date.now())))],
  ['stored-sets', async () => success(storedSetsTable(await inTransaction(storedSets)))],
  ['traces', source(tracesAsked, (asked, who) => traces(asked, who))],
  ...figureNames.map((name): [string, Source] => [
    name,
    source(shopFiguresAsked, async (asked, who) => {
      const figures = await figuresOfShop(asked, who);
      if (!figures.ok) return figures;
      const table = figures.value.tables.find((one) => one.name === name);
      return table ? success(table) : unknownTable();
    }),
  ]),
]);

export const tableNames = (): string[] => [...sources.keys()];

/** Problems: `unknown-table`, `invalid-input`, `not-allowed`. */
export const tableNamed = (name: string, asked: unknown, who: Person): Promise<Result<Table>> =>
  sources.get(name)?.(asked, who) ?? Promise.resolve(unknownTable());

function listedGauges(gauges: readonly Instrument[], nowMs: number): ListedGauge[] {
  return gauges.map((gauge) => {
    const last = gauge.checks.at(-1);
    return {
      name: gauge.name,
      kind: gauge.kind,
      status: calibrationStatusWords[calibrationStatusOf(gauge, nowMs).kind] || 'checked and good',
      checkedAt: last?.at ?? null,
      checkedBy: last?.by ?? null,
    };
  });
}

/** More jobs than this are not put into one file. */
const mostJobs = 100_000;

async function jobsLike(filter: z.infer<typeof jobFilterSchema>): Promise<ListedJob[]> {
  const all: ListedJob[] = [];
  for (;;) {
    const last = all.at(-1);
    const page = await listJobs({ ...filter, ...(last && { beforeAt: last.openedAt, beforeId: last.id }) });
    all.push(...page.jobs);
    if (!page.more || all.length >= mostJobs) return all;
  }
}
