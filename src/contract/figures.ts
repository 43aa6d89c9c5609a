import { z } from 'zod';
import { isTimeZone } from '../core/measure/region';
import type { Sureness } from '../core/records/shop-figures';
import type { Table } from '../core/records/table';
import { asked, type Contract } from './contract';

/** What a shop did, for its manager. */

export const tableSchema: z.ZodType<Table> = z.object({
  name: z.string(),
  title: z.string(),
  columns: z.array(z.object({ label: z.string(), digits: z.int().optional() })),
  rows: z.array(z.array(z.union([z.string(), z.number(), z.null()]))),
  links: z.array(z.string()).optional(),
});

export const weeksOffered = ['4', '13', '26', '52'] as const;

export const shopFiguresAsked = z.object({
  weeks: z.enum(weeksOffered).default('13'),
  /** Who handed over. */
  by: asked(200).optional(),
  /** Where weeks begin, by the name of a time zone; missing: where the shop is. */
  zone: asked(64).refine(isTimeZone, 'no time zone that is known here').optional(),
});
export type ShopFiguresAsked = z.infer<typeof shopFiguresAsked>;

const surenessSchema = z.object({
  visits: z.int(),
  missed: z.int(),
  bars: z.array(
    z.object({
      from: z.number(),
      to: z.number(),
      claims: z.int(),
      meanChance: z.number(),
      shareTrue: z.number(),
    }),
  ),
}) satisfies z.ZodType<Sureness>;

const shopFiguresSchema = z.object({
  from: z.string(),
  to: z.string(),
  people: z.array(z.string()),
  tables: z.array(tableSchema),
  fitted: z.int(),
  sureness: surenessSchema.nullable(),
});
export type FiguresOfShop = z.infer<typeof shopFiguresSchema>;

export const figuresContracts = {
  shopFigures: {
    at: ['GET', '/api/figures/shop'],
    right: 'see-figures',
    notes: 'nothing',
    summary: 'Cars, minutes, proof, comebacks, needless parts and gauges due, over some weeks',
    query: shopFiguresAsked,
    answer: shopFiguresSchema,
    problems: ['not-allowed'],
  },
} as const satisfies Record<string, Contract>;
