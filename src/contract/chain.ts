import { z } from 'zod';
import type { Contract } from './contract';
import { shopFiguresAsked, tableSchema } from './figures';

/** Several shops of one chain, and looking from one into the others. */

const chainShopsSchema = z.object({ shops: z.array(z.string()), table: tableSchema });
export type ChainShops = z.infer<typeof chainShopsSchema>;

export const chainContracts = {
  chainShops: {
    at: ['GET', '/api/chain'],
    right: 'signed-in',
    notes: 'nothing',
    summary: 'The shops of the chain side by side, over the last quarter',
    query: shopFiguresAsked.pick({ zone: true }),
    answer: chainShopsSchema,
    problems: ['not-allowed'],
  },
  lookInto: {
    at: ['POST', '/api/chain'],
    inOwnShop: true,
    right: 'signed-in',
    notes: 'nothing',
    summary: 'From now on this browser reads another shop of the chain, or its own again',
    body: z.object({ shop: z.string().max(40).nullable() }),
    answer: z.null(),
    problems: ['not-allowed', 'unknown-shop'],
  },
} as const satisfies Record<string, Contract>;
