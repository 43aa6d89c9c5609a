import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { day, dayAndTime, dayThere, spokenDay, time, weekday } from '.';
import { isTimeZone, regionCodes, regions, withDecimalSign, type RegionCode } from '../region';

/** Languages that are written in a region, to ask `Intl` (CLDR) by. */
const locales: Record<RegionCode, string> = {
  GB: 'en-GB',
  EU: 'de-DE',
  US: 'en-US',
  CA: 'en-CA',
  AU: 'en-AU',
  JP: 'ja-JP',
};

describe('a region, by CLDR as Intl knows it', () => {
  it.each(regionCodes)('%s writes days, hours and figures so', (code) => {
    const { dayOrder, hours, weekStartsOn, decimal } = regions[code];
    const parts = new Intl.DateTimeFormat(locales[code], { dateStyle: 'short' }).formatToParts();
    expect(parts.find(({ type }) => type !== 'literal')?.type).toBe(dayOrder);
    const { hour12 } = new Intl.DateTimeFormat(locales[code], { timeStyle: 'short' }).resolvedOptions();
    expect(hour12).toBe(hours === 12);
    const { weekInfo } = new Intl.Locale(locales[code]) as Intl.Locale & { weekInfo: { firstDay: number } };
    expect(weekInfo.firstDay % 7).toBe(weekStartsOn);
    expect(withDecimalSign('2.31', code)).toBe(new Intl.NumberFormat(locales[code]).format(2.31));
    expect(decimal).toBe(withDecimalSign('2.31', code)[1]);
  });
});

const chicago = { region: 'US', timeZone: 'America/Chicago' } as const;
const oslo = { region: 'EU', timeZone: 'Europe/Oslo' } as const;

describe('a moment, as it is read in the shop', () => {
  it('is written in the order of the region, by its clock', () => {
    expect(dayAndTime('2026-03-02T23:30:00Z', chicago)).toBe('Mar 2, 2026, 5:30 pm');
    expect(dayAndTime('2026-03-02T23:30:00Z', oslo)).toBe('3 Mar 2026, 00:30');
    expect(weekday('2026-03-02', chicago)).toBe('Mon, Mar 2');
    expect(spokenDay('2026-03-02', oslo)).toBe('2 March');
  });

  it('follows the hour that summer takes and gives back', () => {
    expect(time('2026-03-29T00:59:00Z', oslo)).toBe('01:59');
    expect(time('2026-03-29T01:00:00Z', oslo)).toBe('03:00');
    expect(time('2026-11-01T06:30:00Z', chicago)).toBe('1:30 am');
    expect(time('2026-11-01T07:30:00Z', chicago)).toBe('1:30 am');
  });

  it('is the day and the hour that Intl says it is there', () => {
    const zones = fc.constantFrom('America/St_Johns', 'Asia/Kathmandu', 'Pacific/Apia', 'Europe/Oslo', 'UTC');
    const moments = fc.date({
      min: new Date('1990-01-01'),
      max: new Date('2060-01-01'),
      noInvalidDate: true,
    });
    fc.assert(
      fc.property(moments, zones, (at, timeZone) => {
        const said = new Intl.DateTimeFormat('sv-SE', { timeZone, dateStyle: 'short' }).format(at);
        expect(dayThere(at, { timeZone })).toBe(said);
        const hour = new Intl.DateTimeFormat('en-GB', { timeZone, timeStyle: 'short' }).format(at);
        expect(time(at, { region: 'GB', timeZone })).toBe(hour);
      }),
    );
  });

  it('that is a day alone is that day everywhere', () => {
    for (const timeZone of ['Pacific/Kiritimati', 'Pacific/Pago_Pago'])
      expect(day('2026-12-02', { region: 'GB', timeZone })).toBe('2 Dec 2026');
  });
});

it('knows time zones by name', () => {
  expect(isTimeZone('America/Chicago')).toBe(true);
  expect(isTimeZone('America/Nowhere')).toBe(false);
});
