import { millisecondsInDay } from 'date-fns/constants';

/** Lengths of time, by the clock: a day is 24 hours, a year one of the Julian calendar, ms. */
export const dayMs = millisecondsInDay;
export const yearMs = 365.25 * dayMs;

/** So many days later. */
export const daysAfter = (at: string | number | Date, days: number): Date =>
  new Date(new Date(at).getTime() + days * dayMs);

/** How many days lie between two moments, with their fraction; less than nothing where the second is the earlier. */
export const daysBetween = (from: string | number | Date, to: string | number | Date): number =>
  (new Date(to).getTime() - new Date(from).getTime()) / dayMs;

/** A day so many days later: "2026-12-09" is a week after "2026-12-02". */
export const dayAfter = (on: string, days: number): string =>
  daysAfter(`${on}T00:00:00Z`, days).toISOString().slice(0, 10);
