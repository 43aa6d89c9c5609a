/** How a region writes days, hours and figures, and the paper it prints on. */
export interface Region {
  /** As it is chosen. */
  label: string;
  /** What comes first in a day: its number, its month or its year. */
  dayOrder: 'day' | 'month' | 'year';
  hours: 12 | 24;
  /** As days are counted: 0 is Sunday, 1 Monday. */
  weekStartsOn: 0 | 1;
  paper: Paper;
  decimal: '.' | ',';
}

/** Sizes of paper a sheet is printed on. */
type Paper = 'A4' | 'Letter';

/** Dates, hours, first days and signs by CLDR, as `Intl` of the runtime knows them; paper by CLDR too, from memory. */
export const regions = {
  GB: {
    label: 'United Kingdom, Ireland',
    dayOrder: 'day',
    hours: 24,
    weekStartsOn: 1,
    paper: 'A4',
    decimal: '.',
  },
  EU: {
    label: 'Continent of Europe',
    dayOrder: 'day',
    hours: 24,
    weekStartsOn: 1,
    paper: 'A4',
    decimal: ',',
  },
  US: {
    label: 'United States',
    dayOrder: 'month',
    hours: 12,
    weekStartsOn: 0,
    paper: 'Letter',
    decimal: '.',
  },
  CA: { label: 'Canada', dayOrder: 'year', hours: 12, weekStartsOn: 0, paper: 'Letter', decimal: '.' },
  AU: {
    label: 'Australia, New Zealand',
    dayOrder: 'day',
    hours: 12,
    weekStartsOn: 1,
    paper: 'A4',
    decimal: '.',
  },
  JP: { label: 'Japan', dayOrder: 'year', hours: 24, weekStartsOn: 0, paper: 'A4', decimal: '.' },
} as const satisfies Record<string, Region>;

export type RegionCode = keyof typeof regions;
export const regionCodes = Object.keys(regions) as [RegionCode, ...RegionCode[]];

/** A figure as the region writes it: “2.31” or “2,31”. `text` comes from `toFixed`. */
export const withDecimalSign = (text: string, region: RegionCode): string =>
  text.replace('.', regions[region].decimal);

/** Whether a time zone is known by this name. */
export function isTimeZone(name: string): boolean {
  try {
    return Boolean(new Intl.DateTimeFormat('en', { timeZone: name }));
  } catch {
    return false;
  }
}
