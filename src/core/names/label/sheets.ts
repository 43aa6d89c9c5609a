/** Label sheets and rolls, as data: sizes in mm. Add one, and it can be printed on. */
export interface LabelStock {
  name: string;
  title: string;
  page: { widthMm: number; heightMm: number };
  label: { widthMm: number; heightMm: number };
  columns: number;
  rows: number;
  /** To the first label, and from one to the next. */
  leftMm: number;
  topMm: number;
  stepXMm: number;
  stepYMm: number;
}

const sheet = (
  name: string,
  title: string,
  page: [number, number],
  label: [number, number],
  [columns, rows]: [number, number],
  gapMm = 0,
): LabelStock => ({
  name,
  title,
  page: { widthMm: page[0], heightMm: page[1] },
  label: { widthMm: label[0], heightMm: label[1] },
  columns,
  rows,
  leftMm: (page[0] - columns * label[0] - (columns - 1) * gapMm) / 2,
  topMm: (page[1] - rows * label[1]) / 2,
  stepXMm: label[0] + gapMm,
  stepYMm: label[1],
});

const a4: [number, number] = [210, 297];
const letter: [number, number] = [215.9, 279.4];

/** Common sizes; a roll is a page of one label. */
export const labelStocks: readonly [LabelStock, ...LabelStock[]] = [
  sheet('a4-24', 'A4 sheet, 24 labels of 70 × 37 mm', a4, [70, 37], [3, 8]),
  sheet('a4-10', 'A4 sheet, 10 labels of 99 × 57 mm', a4, [99, 57], [2, 5]),
  sheet('letter-30', 'Letter sheet, 30 labels of 2 5/8 × 1 in', letter, [66.7, 25.4], [3, 10], 3.2),
  sheet('letter-10', 'Letter sheet, 10 labels of 4 × 2 in', letter, [101.6, 50.8], [2, 5], 4.8),
  sheet('roll-62', 'Roll, 62 × 29 mm', [62, 29], [62, 29], [1, 1]),
  sheet('roll-102', 'Roll, 4 × 2 in', [101.6, 50.8], [101.6, 50.8], [1, 1]),
];

export const stockNamed = (name: string): LabelStock | undefined =>
  labelStocks.find((stock) => stock.name === name);

/** Where each of so many labels lies: page, and upper left corner in mm, after `used` labels of the first sheet. */
export function placesOn(
  stock: LabelStock,
  count: number,
  used = 0,
): { page: number; xMm: number; yMm: number }[] {
  const perPage = stock.columns * stock.rows;
  return Array.from({ length: count }, (_, n) => {
    const at = n + used;
    const onPage = at % perPage;
    return {
      page: Math.floor(at / perPage),
      xMm: stock.leftMm + (onPage % stock.columns) * stock.stepXMm,
      yMm: stock.topMm + Math.floor(onPage / stock.columns) * stock.stepYMm,
    };
  });
}
