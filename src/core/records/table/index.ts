/**
 * A table as it is shown and as it is taken away: both go by the same words and figures, so that a file says what the
 * screen said.
 */
export interface Table {
  /** What it is called in an address and a file's name. */
  name: string;
  title: string;
  columns: readonly Column[];
  rows: readonly (readonly Cell[])[];
  /** Where each row leads on a screen. */
  links?: readonly string[] | undefined;
}

export interface Column {
  /** With its unit. */
  label: string;
  /** How many digits a number has behind its point; missing: as it is. */
  digits?: number;
}

/** Null: not known. */
export type Cell = string | number | null;

/** What stands in a cell; nothing where nothing is known. */
const cellText = (cell: Cell | undefined, { digits }: Pick<Column, 'digits'>): string => {
  if (cell === null || cell === undefined) return '';
  return typeof cell === 'number' && digits !== undefined ? cell.toFixed(digits) : String(cell);
};

/** Every cell as it is shown, below the labels. */
export const textsOf = ({ columns, rows }: Pick<Table, 'columns' | 'rows'>): string[][] => [
  columns.map(({ label }) => label),
  ...rows.map((row) => columns.map((column, at) => cellText(row[at], column))),
];
