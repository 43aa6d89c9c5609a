import Papa from 'papaparse';
import { success, type Result } from '../../result';
import { canonicalPlate } from '../vehicle/plate';
import { canonicalVin, judgeVin } from '../../names/vin';
import { notAList } from './decode';

/** A list of customers and their vehicles, as another program wrote it: read, its columns named, each row judged whole. */

export { decodeText } from './decode';

/** What a column can hold. */
export const listFields = ['name', 'phone', 'email', 'plate', 'vin', 'vehicle', 'modelYear'] as const;
export type ListField = (typeof listFields)[number];

export const fieldNames: Record<ListField, string> = {
  name: 'Customer',
  phone: 'Phone',
  email: 'E-mail',
  plate: 'Plate',
  vin: 'VIN',
  vehicle: 'Vehicle',
  modelYear: 'Model year',
};

/** Which column holds what, counted from 0; a field that is missing is in none. */
export type Mapping = Partial<Record<ListField, number>>;

interface ListRow {
  /** As the file counts its rows, from 1. */
  row: number;
  cells: string[];
}

interface CustomerList {
  /** What the columns are called; numbered where the file does not say. */
  header: string[];
  rows: ListRow[];
}

/** Rows more than this come in another file. */
const mostRows = 50_000;
const mostColumns = 100;

/** Problem: `not-a-list`, with what to do. */
export function readList(text: string): Result<CustomerList> {
  if (/^\s*[[{<]/.test(text.replace(/^\ufeff/, '')))
    return notAList('This is no list of rows and columns. Save the list as CSV, then choose that file.');
  const { data, errors } = Papa.parse<string[]>(prepared(text), {
    skipEmptyLines: false,
    delimitersToGuess: [',', ';', '\t', '|'],
  });
  const open = errors.find(({ type }) => type === 'Quotes');
  if (open)
    return notAList(
      `Row ${(open.row ?? 0) + 1} has a quotation mark that is not closed, or that stands within a text. Mend it there.`,
    );
  const rows = data
    .map((cells, at): ListRow => ({ row: at + 1, cells: cells.map(cleaned) }))
    .filter(({ cells }) => cells.some((cell) => cell !== ''));
  const [first, ...rest] = rows;
  if (!first) return notAList('There is nothing in this file.');
  const isHeader = first.cells.some((cell) => fieldCalled(cell) !== undefined);
  const body = (isHeader ? rest : rows).filter(({ cells }) => !isHeader || !sameCells(cells, first.cells));
  if (body.length === 0) return notAList('There is a header in this file, and no row below it.');
  if (body.length > mostRows)
    return notAList(
      `There are more than ${mostRows} rows in this file. Divide it, and bring in one after the other.`,
    );
  if (first.cells.length > mostColumns)
    return notAList(`There are more than ${mostColumns} columns in this file.`);
  const header = first.cells.map((cell, at) => (isHeader && cell !== '' ? cell : `Column ${at + 1}`));
  return success({ header, rows: body });
}

/** Some programs name the separator in a line of its own; some end lines the old way; some leave a null at the end. */
const prepared = (text: string): string =>
  text
    .replace(/^\ufeff/, '')
    .replace(/^sep=.\r?\n/i, '')
    .replace(/\r\n?/g, '\n')
    .replace(/\0+$/, '');

const sameCells = (one: readonly string[], other: readonly string[]): boolean =>
  one.length === other.length && one.every((cell, at) => cell === other[at]);

/** What programs write where they know nothing. */
const placeholders = new Set(
  '- -- --- . ? / n/a na null nil none (none) unknown undefined #n/a #ref! #value! #name? tbd'.split(' '),
);

/** Without blanks around, marks that are not seen, and words that say that nothing is known. */
function cleaned(cell: string): string {
  const text = cell
    .normalize('NFC')
    .replace(/[\u200b-\u200f\u2060\ufeff\u00ad]/g, '')
    .replace(/[\s\u00a0]+/g, ' ')
    .trim();
  return placeholders.has(text.toLowerCase()) ? '' : text;
}

/** What columns are called, by what they hold, in the languages lists come in here. */
const called: Record<ListField, RegExp> = {
  name: /^(customer|client|name|full ?name|customer ?name|owner|account|company|kunde|cliente|nombre)$/,
  phone:
    /^(phone|telephone|tel|mobile|cell|phone ?(no|number)|mobile ?(no|number)|telefon|teléfono|telefono)$/,
  email: /^(e ?mail|e ?mail ?address|mail|correo)$/,
  plate:
    /^(plate|licen[cs]e ?plate|registration|reg|reg ?no|plate ?(no|number)|kennzeichen|matrícula|matricula)$/,
  vin: /^(vin|chassis|chassis ?(no|number)|vin ?(no|number)|fin)$/,
  vehicle: /^(vehicle|car|model|make ?and ?model|description|fahrzeug|vehículo|vehiculo)$/,
  modelYear: /^(year|model ?year|baujahr|año|ano)$/,
};

const fieldCalled = (label: string): ListField | undefined => {
  const plain = label
    .toLowerCase()
    .replace(/[_.\-:*]+/g, ' ')
    .replace(/\s+/g, ' ')
    .trim();
  return listFields.find((field) => called[field].test(plain));
};

/** Each field in the first column that is called so; a person says the rest. */
export function suggestMapping(header: readonly string[]): Mapping {
  const mapping: Mapping = {};
  header.forEach((label, at) => {
    const field = fieldCalled(label);
    if (field) mapping[field] ??= at;
  });
  return mapping;
}

/** What a row says, once it is understood. */
export interface ListEntry {
  row: number;
  name: string;
  phone: string | null;
  email: string | null;
  /** None where the row names none. */
  vehicle: { plate: string | null; vin: string | null; label: string; modelYear: number | null } | null;
}

/** Why a row cannot be taken in, and what to do. */
export interface RefusedRow {
  row: number;
  reason: string;
}

export interface Judgement {
  entries: ListEntry[];
  refused: RefusedRow[];
}

/** Each row whole or not at all; a vehicle that two rows give to two customers goes to neither. */
export function judgeList({ header, rows }: CustomerList, mapping: Mapping, thisYear: number): Judgement {
  const judged = rows.map((row) => judgeRow(row, header.length, mapping, thisYear));
  const refused = judged.flatMap((one) => ('reason' in one ? [one] : []));
  const entries: ListEntry[] = [];
  const firstWith = new Map<string, ListEntry>();
  for (const one of judged) {
    if ('reason' in one) continue;
    const keys = [
      whole(one),
      ...(one.vehicle?.plate ? [`plate ${one.vehicle.plate}`] : []),
      ...(one.vehicle?.vin ? [`vin ${one.vehicle.vin}`] : []),
    ];
    const before = keys.map((key) => firstWith.get(key)).find((entry) => entry !== undefined);
    if (before) refused.push({ row: one.row, reason: reasonTwice(one, before) });
    else entries.push(one);
    if (!before) for (const key of keys) firstWith.set(key, one);
  }
  return { entries, refused: refused.sort((a, b) => a.row - b.row) };
}

const whole = ({ name, phone, email, vehicle }: ListEntry): string =>
  `whole ${JSON.stringify([name, phone, email, vehicle]).toLowerCase()}`;

const reasonTwice = (entry: ListEntry, before: ListEntry): string =>
  whole(entry) === whole(before)
    ? `the same as row ${before.row}`
    : `row ${before.row} has this vehicle already; leave one of them`;

type Field<Value> = { value: Value } | { reason: string };

function judgeRow(
  { row, cells }: ListRow,
  columns: number,
  mapping: Mapping,
  thisYear: number,
): ListEntry | RefusedRow {
  if (cells.slice(columns).some((cell) => cell !== ''))
    return { row, reason: 'more cells than the header has: is a separator within a text?' };
  const text = (field: ListField): string => {
    const at = mapping[field];
    return at === undefined ? '' : (cells[at] ?? '');
  };
  const strange = listFields.find((field) => !isPlain(text(field)));
  if (strange) return { row, reason: `${fieldNames[strange]} holds what no name or number has` };
  const formula = listFields.find((field) => /^[=@]/.test(text(field)));
  if (formula) return { row, reason: `${fieldNames[formula]} is a formula, not a text` };
  const name = nameOf(text('name'));
  if ('reason' in name) return { row, ...name };
  const phone = phoneOf(text('phone'));
  if ('reason' in phone) return { row, ...phone };
  const email = emailOf(text('email'));
  if ('reason' in email) return { row, ...email };
  const vehicle = vehicleOf(text, thisYear);
  if ('reason' in vehicle) return { row, ...vehicle };
  return { row, name: name.value, phone: phone.value, email: email.value, vehicle: vehicle.value };
}

/** No control characters, no half of a pair, nothing of a page, no sign that an encoding was lost. */
const isPlain = (text: string): boolean => !/[\p{Cc}\p{Cs}\p{Co}<>{}\ufffd]|Ã[\u0080-\u00bf]/u.test(text);

const most = { name: 120, label: 120, email: 200 } as const;

function nameOf(text: string): Field<string> {
  if (text === '') return { reason: 'no customer' };
  if (text.length > most.name) return { reason: `Customer is longer than ${most.name} characters` };
  if (!/\p{L}/u.test(text)) return { reason: 'Customer has no letter in it' };
  if (text.includes('@')) return { reason: 'Customer is an e-mail address' };
  return { value: text };
}

function phoneOf(text: string): Field<string | null> {
  if (text === '') return { value: null };
  if (/^\d+([.,]\d+)?e\+?\d+$/i.test(text))
    return { reason: 'Phone was rounded by a spreadsheet (4.9E+11): set the column to text there' };
  const plain = text.replace(/^'/, '');
  if (!/^\+?[\d\s()/.\-]+((x|ext\.?)\s?\d{1,6})?$/i.test(plain)) return { reason: 'Phone is no number' };
  const digits = plain.replace(/\D/g, '').length;
  if (digits < 5 || digits > 20) return { reason: 'Phone has too few or too many digits' };
  return { value: plain };
}

function emailOf(text: string): Field<string | null> {
  if (text === '') return { value: null };
  if (text.length > most.email || !/^[^\s@,;]+@[^\s@,;]+\.[^\s@,;.]{2,}$/.test(text))
    return { reason: 'E-mail is no address' };
  return { value: text };
}

function vehicleOf(text: (field: ListField) => string, thisYear: number): Field<ListEntry['vehicle']> {
  const [typedPlate, typedVin, label, year] = [
    text('plate'),
    text('vin'),
    text('vehicle'),
    text('modelYear'),
  ];
  const modelYear = yearOf(year, thisYear);
  if ('reason' in modelYear) return modelYear;
  const plate = canonicalPlate(typedPlate);
  if (typedPlate !== '' && (plate.length < 2 || plate.length > 12))
    return { reason: 'Plate has too few or too many letters and digits' };
  const vin = canonicalVin(typedVin);
  if (vin !== '') {
    const verdict = judgeVin(vin);
    if (verdict.kind === 'wrong-length') return { reason: `VIN has ${verdict.length} characters, not 17` };
    if (verdict.kind === 'wrong-character')
      return { reason: `VIN holds “${verdict.character}”, which none has` };
  }
  if (label.length > most.label) return { reason: `Vehicle is longer than ${most.label} characters` };
  if (plate === '' && vin === '') {
    // Nobody could find such a car again.
    return label === '' && year === '' ? { value: null } : { reason: 'a vehicle without plate and VIN' };
  }
  return {
    value: {
      plate: plate || null,
      vin: vin || null,
      label: label || 'Vehicle',
      modelYear: modelYear.value,
    },
  };
}

function yearOf(text: string, thisYear: number): Field<number | null> {
  if (text === '') return { value: null };
  const year = Number(text.replace(/[.,]0+$/, ''));
  if (/^'?\d\d$/.test(text)) return { reason: 'Model year has two digits: write four' };
  // Cars are sold as next year's.
  if (!Number.isInteger(year) || year < 1950 || year > thisYear + 1)
    return { reason: `Model year is none between 1950 and ${thisYear + 1}` };
  return { value: year };
}
