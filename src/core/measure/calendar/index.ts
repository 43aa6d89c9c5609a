import { TZDate } from '@date-fns/tz';
import { format } from 'date-fns/format';
import { regions, type RegionCode } from '../region';

/** Where days and hours are read: in the shop, whoever looks and from where. */
export interface Place {
  region: RegionCode;
  /** By its IANA name: "America/Chicago". */
  timeZone: string;
}

/** A moment, or a day alone: "2026-12-02" is that day everywhere. */
type Moment = string | number | Date;

/** So each region writes a day, by what comes first in it; `date-fns` names what the letters stand for. */
const patterns = {
  day: { day: 'd MMM yyyy', month: 'MMM d, yyyy', year: 'yyyy-MM-dd' },
  dayOfMonth: { day: 'd MMM', month: 'MMM d', year: 'MMM d' },
  weekday: { day: 'EEE d MMM', month: 'EEE, MMM d', year: 'EEE, MMM d' },
  spokenDay: { day: 'd MMMM', month: 'MMMM d', year: 'MMMM d' },
} as const;
const hourPatterns = { 12: 'h:mm aaa', 24: 'HH:mm' } as const;

const dayAlone = /^\d{4}-\d{2}-\d{2}$/;

function written(at: Moment, { timeZone }: Place, pattern: string): string {
  const isDay = typeof at === 'string' && dayAlone.test(at);
  const date = isDay ? new TZDate(`${at}T12:00:00Z`, 'UTC') : new TZDate(new Date(at).getTime(), timeZone);
  return format(date, pattern);
}

const byOrder =
  (name: keyof typeof patterns) =>
  (at: Moment, place: Place): string =>
    written(at, place, patterns[name][regions[place.region].dayOrder]);

/** "2 Dec 2026", "Dec 2, 2026" or "2026-12-02". */
export const day = byOrder('day');
/** "2 Dec" or "Dec 2", where the year is plain. */
export const dayOfMonth = byOrder('dayOfMonth');
/** "Wed 2 Dec" or "Wed, Dec 2". */
export const weekday = byOrder('weekday');
/** As it is spoken: "2 December" or "December 2". */
export const spokenDay = byOrder('spokenDay');
/** "Dec 2026". */
export const month = (at: Moment, place: Place): string => written(at, place, 'MMM yyyy');
/** "14:05" or "2:05 pm". */
export const time = (at: Moment, place: Place): string =>
  written(at, place, hourPatterns[regions[place.region].hours]);
/** "2 Dec 2026, 14:05". */
export const dayAndTime = (at: Moment, place: Place): string => `${day(at, place)}, ${time(at, place)}`;
/** "2 Dec, 14:05", where the year is plain. */
export const recently = (at: Moment, place: Place): string => `${dayOfMonth(at, place)}, ${time(at, place)}`;

/** The day it is there: "2026-12-02", for lists, fields and files. */
export const dayThere = (at: Moment, place: Pick<Place, 'timeZone'>): string =>
  format(new TZDate(new Date(at).getTime(), place.timeZone), 'yyyy-MM-dd');

/** The latest day that is written anywhere on earth at a moment: what is later lies ahead for everybody. */
export const latestDay = (at: Moment): string => dayThere(at, { timeZone: 'Pacific/Kiritimati' });

/** When a day begins there, or the one so many days later: summer takes and gives back an hour. */
export function dayBegins(on: string, { timeZone }: Pick<Place, 'timeZone'>, daysLater = 0): Date {
  const [year = 0, month1 = 1, date = 1] = on.split('-').map(Number);
  return new Date(new TZDate(year, month1 - 1, date + daysLater, timeZone).getTime());
}
