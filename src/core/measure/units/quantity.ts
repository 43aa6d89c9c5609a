import { failure, success, type Result } from '../../result';
import { withDecimalSign, type RegionCode } from '../region';

/**
 * A quantity is stored once, in its base unit, beside what was typed. A unit knows its
 * scale to the base unit and how many decimals a screen shows.
 */
export interface Unit<Name extends string> {
  name: Name;
  /** Other spellings accepted after a figure, lower case, without blanks. */
  spellings: readonly string[];
  toBase: (value: number) => number;
  fromBase: (base: number) => number;
  decimals: number;
}

export interface Quantity<Name extends string, Noun extends string = string> {
  /** What the quantity is called in an error, and in a choice of units: "pressure". */
  noun: Noun;
  units: readonly Unit<Name>[];
  /** Outside of these a figure cannot be; both in the base unit. */
  possible: { least: number; most: number };
  /** Figures run to thousands, and are written with separators: 74,500 or 74.500 is no fraction. */
  grouped?: boolean;
}

/** A figure as it was meant: in the base unit, and in the unit it was typed in. */
export interface Entry<Name extends string> {
  base: number;
  value: number;
  unit: Name;
  /** The figure to the letter with its unit: "32.50 psi". Kept beside what is stored. */
  typed: string;
}

export function unitNamed<Name extends string>(quantity: Quantity<Name>, name: Name): Unit<Name> {
  const unit = quantity.units.find((candidate) => candidate.name === name);
  if (!unit) throw new Error(`${quantity.noun} has no unit ${name}`);
  return unit;
}

/** How this quantity is read: in which unit, with which decimal sign. */
type Read<Name extends string, Noun extends string> = Record<Noun, Name> & { region: RegionCode };

/** The figure alone, rounded as its unit is shown. */
export function figure<Name extends string, Noun extends string>(
  quantity: Quantity<Name, Noun>,
  base: number,
  read: Read<Name, Noun>,
): string {
  const unit = unitNamed(quantity, read[quantity.noun]);
  return decimal(unit.fromBase(base), unit.decimals, read);
}

/** A figure of anything, with so many decimals: "2.3", "−0.5"; nothing less than nothing. */
export function decimal(value: number, decimals: number, { region }: { region: RegionCode }): string {
  const text = value.toFixed(decimals);
  const plain = Number(text) === 0 ? (0).toFixed(decimals) : text.replace('-', '−');
  return withDecimalSign(plain, region);
}

/**
 * The figure alone, to the letter as it was typed where it was typed in this unit; else rounded as the
 * unit is shown. `typed` is what `parse` gave; one that does not say `base` is passed over.
 */
export function figureAsTyped<Name extends string, Noun extends string>(
  quantity: Quantity<Name, Noun>,
  base: number,
  read: Read<Name, Noun>,
  typed: unknown,
): string {
  const name: Name = read[quantity.noun];
  const entry = typeof typed === 'string' ? parse(quantity, typed, name) : undefined;
  const same = entry?.ok && entry.value.unit === name && Math.abs(entry.value.base - base) < 1e-6;
  return same
    ? withDecimalSign(entry.value.typed.slice(0, -name.length - 1), read.region)
    : figure(quantity, base, read);
}

/** A value in a unit, not rounded: for charts. */
export const inUnit = <Name extends string>(quantity: Quantity<Name>, base: number, name: Name): number =>
  unitNamed(quantity, name).fromBase(base);

/** Figure and unit: "230 kPa". */
export const format = <Name extends string, Noun extends string>(
  quantity: Quantity<Name, Noun>,
  base: number,
  read: Read<Name, Noun>,
): string => `${figure(quantity, base, read)} ${read[quantity.noun]}`;

/**
 * With its sign, for differences: "+12 kPa", "−3.5 psi", "±0 kPa". `base` is a difference in the base
 * unit; `finer` shows so many decimals more, where small differences are the matter.
 */
export function formatDifference<Name extends string, Noun extends string>(
  quantity: Quantity<Name, Noun>,
  base: number,
  read: Read<Name, Noun>,
  finer = 0,
): string {
  const unit = unitNamed(quantity, read[quantity.noun]);
  const value = unit.fromBase(base) - unit.fromBase(0);
  const size = Math.abs(value).toFixed(unit.decimals + finer);
  const sign = Number(size) === 0 ? '±' : value > 0 ? '+' : '−';
  return `${sign}${withDecimalSign(size, read.region)} ${unit.name}`;
}

/** Groups of three behind one to three digits; what comes after is no digit. */
const grouped = /^([+\-−]?\d{1,3})((?:[.,'’\u00a0\u202f ]\d{3})+)(?!\d)/;

const withoutSeparators = (typed: string): string =>
  typed.replace(grouped, (_, first: string, groups: string) => first + groups.replace(/\D/g, ''));

const figureAndUnit = /^([+\-−]?\d+(?:[.,]\d+)?|[+\-−]?[.,]\d+)(.*)$/;

/**
 * Reads "32psi", "2.3 bar", "2,3" …; without a unit, `fallback` is meant.
 * Problems: `not-a-figure`, `unknown-unit`, `impossible`.
 */
export function parse<Name extends string>(
  quantity: Quantity<Name>,
  typed: string,
  fallback: Name,
): Result<Entry<Name>> {
  const trimmed = typed.trim();
  const match = figureAndUnit.exec(quantity.grouped ? withoutSeparators(trimmed) : trimmed);
  const names = quantity.units.map((unit) => unit.name).join(', ');
  if (!match?.[1]) {
    return failure(
      'not-a-figure',
      `Type the ${quantity.noun} as a figure, with a unit if it is not ${fallback}.`,
    );
  }
  const suffix = (match[2] ?? '').replace(/\s+/g, '').toLowerCase();
  const unit =
    suffix === ''
      ? unitNamed(quantity, fallback)
      : quantity.units.find((candidate) => candidate.spellings.includes(suffix));
  if (!unit) return failure('unknown-unit', `"${suffix}" is not a unit of ${quantity.noun}; use ${names}.`);
  const value = Number(match[1].replace(',', '.').replace('−', '-'));
  const base = unit.toBase(value);
  const { least, most } = quantity.possible;
  if (base < least || base > most) {
    const [from, to] = [least, most].map((end) =>
      unit.fromBase(end).toFixed(unit.decimals).replace('-', '−'),
    );
    return failure(
      'impossible',
      `A ${quantity.noun} of ${value} ${unit.name} cannot be; it lies between ${from} ${unit.name} and ${to} ${unit.name}. Read it again.`,
    );
  }
  const typedFigure = match[1].replace(',', '.').replace('-', '−').replace(/^\+/, '');
  return success({ base, value, unit: unit.name, typed: `${typedFigure} ${unit.name}` });
}
