import { practice } from '../../measure/figure';
import { failure, success, type Result } from '../../result';
import type { Season, SetWheel } from '.';
import { yearMs } from '../../measure/calendar/spans';

/** A tire's age and its tread. */

/** Week and year a tire was made. */
interface MadeIn {
  week: number;
  year: number;
}

/**
 * The end of the tire identification number on a sidewall: week and year in four digits, since 2000 [49 CFR 574.5, from
 * memory]. The whole number may be typed; the last four digits count. Problem: `not-a-figure`.
 */
export function madeIn(dot: string): Result<MadeIn> {
  const digits = /(\d{4})\s*$/.exec(dot)?.[1];
  const week = Number(digits?.slice(0, 2));
  if (digits === undefined || week < 1 || week > 53)
    return failure('not-a-figure', 'Week and year as the sidewall ends: 3421 for week 34 of 2021.');
  return success({ week, year: 2000 + Number(digits.slice(2)) });
}

/** The day a tire's week began, to within some days: weeks are counted from the year's first day here. */
export const bornOn = ({ week, year }: MadeIn): Date => new Date(Date.UTC(year, 0, 1 + (week - 1) * 7));

/** A tire's age in years; negative where it would be made in the future. */
export const tireAgeYears = (made: MadeIn, now: Date): number =>
  (now.getTime() - bornOn(made).getTime()) / yearMs;

/** Figures that speak for another tire. */
const tireFigures = {
  /** No tire is on the road with less, mm [Directive 89/459/EEC: 1.6 mm; FMVSS 139: indicators at 1/16 inch; from memory]. */
  legalTreadMm: 1.6,
  summerTreadMm: practice(3, 'water is no longer cleared at speed below it'),
  winterTreadMm: practice(4, 'snow is no longer held below it; some countries require it'),
  lookedAtYears: practice(6, 'looked at each year from then on'),
  oldYears: practice(10, 'replaced whatever its tread'),
} as const;

export type TireState = 'good' | 'worn' | 'spent' | 'old' | 'ageing' | 'not-known';

/** What tread and age say of a tire, the worst first. */
export function tireState(
  { treadMm, dot }: Pick<SetWheel, 'treadMm' | 'dot'>,
  season: Season,
  now: Date,
): TireState {
  const made = dot === null ? undefined : madeIn(dot);
  const years = made?.ok ? tireAgeYears(made.value, now) : undefined;
  const worn = season === 'winter' ? tireFigures.winterTreadMm : tireFigures.summerTreadMm;
  if (treadMm !== null && treadMm < tireFigures.legalTreadMm) return 'spent';
  if (years !== undefined && years >= tireFigures.oldYears.value) return 'old';
  if (treadMm !== null && treadMm < worn.value) return 'worn';
  if (years !== undefined && years >= tireFigures.lookedAtYears.value) return 'ageing';
  return treadMm === null && years === undefined ? 'not-known' : 'good';
}
