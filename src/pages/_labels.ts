import { labelStocks, stockNamed, type LabelStock } from '../core/names/label/sheets';

/** So many labels are made at once. */
const mostLabels = 60;

/** Which labels an address asks for: `codes` separated by commas, the `stock` they go on, how many of it are `used`. */
export function askedLabels({ searchParams }: URL): { codes: string[]; stock: LabelStock; used: number } {
  const codes = (searchParams.get('codes') ?? '').split(',').filter(Boolean).slice(0, mostLabels);
  const stock = stockNamed(searchParams.get('stock') ?? '') ?? labelStocks[0];
  const used = Number(searchParams.get('used'));
  const perSheet = stock.columns * stock.rows;
  return { codes, stock, used: Number.isInteger(used) && used > 0 && used < perSheet ? used : 0 };
}
