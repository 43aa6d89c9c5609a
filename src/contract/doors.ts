import { z } from 'zod';
import { listFields, type Mapping } from '../core/records/customer-list';
import { asked, key, type Contract } from './contract';
import { tableSchema } from './figures';
import { moment } from './memory';

/** What comes in and goes out beside the visits. */

const column = z.int().min(0).max(99).optional();
const mappingSchema = z.strictObject(
  Object.fromEntries(listFields.map((field) => [field, column])) as Record<
    (typeof listFields)[number],
    typeof column
  >,
) as z.ZodType<Mapping>;

/** A list of 50,000 rows fits in. */
const mostListBytes = 12 * 2 ** 20;
const listText = z.string().max(mostListBytes);

const refusedRowSchema = z.object({ row: z.int(), reason: z.string() });
const checkedListSchema = z.object({
  header: z.array(z.string()),
  mapping: z.partialRecord(z.enum(listFields), z.int()),
  /** The first rows, as they are understood. */
  sample: z.array(z.array(z.string())),
  rows: z.int(),
  /** What it would add. */
  customers: z.int(),
  cars: z.int(),
  given: z.int(),
  onFile: z.int(),
  /** All that would be left out, and the first of them. */
  leftOut: z.int(),
  refused: z.array(refusedRowSchema),
});
export type CheckedList = z.infer<typeof checkedListSchema>;

const broughtInSchema = z.object({
  key,
  name: z.string(),
  at: z.string(),
  by: z.string(),
  customers: z.int(),
  cars: z.int(),
  given: z.int(),
  undone: z.object({ at: z.string(), by: z.string() }).nullable(),
});
export type BroughtIn = z.infer<typeof broughtInSchema>;

export const apiTokenSchema = z.object({
  id: z.uuid(),
  name: z.string(),
  madeAt: z.string(),
  madeBy: z.string(),
  usedAt: z.string().nullable(),
  ended: z.object({ at: z.string(), by: z.string() }).nullable(),
});
export type ApiToken = z.infer<typeof apiTokenSchema>;

export const toldAddressSchema = z.object({
  id: z.uuid(),
  url: z.string(),
  madeAt: z.string(),
  madeBy: z.string(),
  told: z.int(),
  waiting: z.int(),
  givenUp: z.int(),
  answer: z.string().nullable(),
  nextAt: z.string().nullable(),
});
export type ToldAddress = z.infer<typeof toldAddressSchema>;

/** An address that can be told: of the web, without a name and a passphrase in it. */
const webAddress = z
  .string()
  .trim()
  .max(500)
  .refine((text) => {
    if (!URL.canParse(text)) return false;
    const { protocol, username, password } = new URL(text);
    return (protocol === 'https:' || protocol === 'http:') && username === '' && password === '';
  }, 'This is no web address. It begins with https:// or http://, and names no account.');

export const tracesAsked = z.object({
  plate: asked(40).optional(),
  by: asked(200).optional(),
  before: moment.optional(),
  /** Only what was changed. */
  changes: z.literal('1').optional(),
});
export type TracesAsked = z.infer<typeof tracesAsked>;

export const doorsContracts = {
  apiTokens: {
    at: ['GET', '/api/tokens'],
    right: 'manage-shop',
    notes: 'nothing',
    summary: 'Programs that may read',
    answer: z.array(apiTokenSchema),
    problems: ['not-allowed'],
  },
  makeToken: {
    at: ['POST', '/api/tokens'],
    right: 'manage-shop',
    notes: 'nothing',
    summary: 'Lets a program read; its token is told once',
    body: z.object({ key, name: z.string().trim().min(1, 'give it a name').max(80) }),
    answer: z.object({ token: z.string(), tokens: z.array(apiTokenSchema) }),
    problems: ['not-allowed'],
  },
  endToken: {
    at: ['POST', '/api/tokens/{id}/end'],
    right: 'manage-shop',
    notes: 'nothing',
    of: 'token',
    summary: 'Lets a program read no more',
    body: z.strictObject({}),
    answer: z.array(apiTokenSchema),
    problems: ['not-allowed', 'unknown-token'],
  },
  toldAddresses: {
    at: ['GET', '/api/webhooks'],
    right: 'manage-shop',
    notes: 'nothing',
    summary: 'Addresses that are told when a car is handed over, and how that goes',
    answer: z.array(toldAddressSchema),
    problems: ['not-allowed'],
  },
  addWebhook: {
    at: ['POST', '/api/webhooks'],
    right: 'manage-shop',
    notes: 'nothing',
    summary:
      'Tells an address when a car is handed over; what it is told is signed with a secret, which is told once',
    body: z.object({ key, url: webAddress }),
    answer: z.object({ secret: z.string(), addresses: z.array(toldAddressSchema) }),
    problems: ['not-allowed'],
  },
  changeWebhook: {
    at: ['POST', '/api/webhooks/{id}'],
    right: 'manage-shop',
    notes: 'nothing',
    of: 'address',
    summary: 'Tells an address no more, or once more what did not arrive',
    body: z.object({ what: z.enum(['end', 'again']) }),
    answer: z.array(toldAddressSchema),
    problems: ['not-allowed', 'unknown-address'],
  },
  eraseCustomer: {
    at: ['POST', '/api/customers/{id}/erase'],
    right: 'manage-shop',
    notes: 'nothing',
    of: 'customer',
    summary: 'Deletes what is known of a customer; what their wheels had stays, as facts of nobody',
    body: z.object({ key }),
    answer: z.object({ cars: z.int(), jobs: z.int() }),
    problems: ['not-allowed', 'unknown-customer', 'cars-in-shop'],
  },
  traces: {
    at: ['GET', '/api/traces'],
    right: 'manage-shop',
    notes: { what: 'who saw what' },
    summary: 'Who saw and changed what, the last first',
    query: tracesAsked,
    answer: tableSchema,
    problems: ['not-allowed'],
  },
  checkList: {
    at: ['POST', '/api/customer-lists/check'],
    right: 'manage-shop',
    notes: 'nothing',
    slow: true,
    summary: 'What a customer list says, row by row, and what bringing it in would add; changes nothing',
    body: z.object({ text: listText, mapping: mappingSchema.optional() }),
    mostBytes: mostListBytes,
    answer: checkedListSchema,
    problems: ['not-allowed', 'not-a-list'],
  },
  customerLists: {
    at: ['GET', '/api/customer-lists'],
    right: 'manage-shop',
    notes: { what: 'customer lists' },
    summary: 'The lists that were brought in, and how far the one is that is coming in now',
    answer: z.object({
      lists: z.array(broughtInSchema),
      running: z.object({ done: z.int(), of: z.int() }).nullable(),
    }),
    problems: ['not-allowed'],
  },
  bringInList: {
    at: ['POST', '/api/customer-lists'],
    right: 'manage-shop',
    notes: 'nothing',
    slow: true,
    summary: 'Brings a customer list in, all of it at once, but for the rows that were said to be left out',
    body: z.object({
      key,
      name: z.string().trim().min(1).max(200),
      text: listText,
      mapping: mappingSchema,
      leaveOut: z.int().min(0),
    }),
    mostBytes: mostListBytes,
    answer: broughtInSchema,
    problems: ['not-allowed', 'not-a-list', 'list-changed'],
  },
  takeOutList: {
    at: ['POST', '/api/customer-lists/{id}/take-out'],
    right: 'manage-shop',
    notes: 'nothing',
    of: 'list',
    summary: 'Takes a list out again, but for what was used since',
    body: z.strictObject({}),
    answer: z.object({ cars: z.int(), customers: z.int() }),
    problems: ['not-allowed', 'unknown-list'],
  },
} as const satisfies Record<string, Contract>;
