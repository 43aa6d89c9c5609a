import Papa from 'papaparse';
import { textsOf, type Table } from '../../core/records/table';

/** A text that a spreadsheet would take for a formula; a negative number is none. */
const formula = /^(?:[=+@\t\r]|-(?!\d))/;

/** A table as comma-separated values (RFC 4180), with the mark by which spreadsheets tell UTF-8. */
export const toCsv = (table: Table): string =>
  `\u{feff}${Papa.unparse(textsOf(table), { escapeFormulae: formula })}\r\n`;
