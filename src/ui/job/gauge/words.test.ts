import { describe, expect, it } from 'vitest';
import { metric } from '../../../core/measure/units';
import { forecastWords, lampSoonWords, lossWords, oneReadingWords } from './words';
import type { Loss } from '../../../core/tire/leak';

const loss = (more: Partial<Loss>): Loss => ({
  wheel: 'LF',
  levels: [],
  earlier: [],
  line: undefined,
  referenceC: 20,
  perDayKPa: { best: 2.04, low: 1.5, high: 2.6 },
  verdict: 'leaks',
  tellsAfterDays: undefined,
  lampInDays: undefined,
  ...more,
});

describe('what is said of a loss', () => {
  it('names the rate with its interval, beside what seeps through rubber', () => {
    expect(lossWords(loss({}), metric)).toBe(
      'LF loses 2.0 kPa a day (95 %: 1.5 to 2.6), more than the 0.5 that seep through rubber.',
    );
    expect(
      lossWords(loss({ verdict: 'not-known', perDayKPa: { best: 0.3, low: -0.4, high: 1 } }), metric),
    ).toBe('Not known yet: 0.3 kPa a day, but anything from −0.4 to 1.0 fits.');
    expect(lossWords(loss({ verdict: 'sound' }), { ...metric, pressure: 'bar' })).toMatch(/0\.020 bar a day/);
  });

  it('with one reading asks for another, and says when', () => {
    expect(oneReadingWords(loss({ perDayKPa: undefined, tellsAfterDays: 2.2 }))).toMatch(/in 3 days\.$/);
    expect(oneReadingWords(loss({ perDayKPa: undefined }))).toMatch(/at the next visit\.$/);
  });

  it('tells when the lamp lights, and never in fewer than one day once it is not yet there', () => {
    expect(lampSoonWords({ best: 0, soonest: 0, latest: 1 })).toMatch(/already/);
    expect(lampSoonWords({ best: 0.2, soonest: 0.1, latest: 400 })).toMatch(
      /in 1 day or so \(95 %: 1 day to more than a year\)/,
    );
  });
});

describe('what is said of the nights to come', () => {
  const there = { ...metric, timeZone: 'Europe/Oslo' };
  const forecast = { litNow: false, changes: [], nights: [], wheels: [] } as unknown as Parameters<
    typeof forecastWords
  >[0];

  it('is no promise where no night is known', () => {
    expect(forecastWords(forecast, there)).toBe('The tires do not light the lamp.');
  });

  it('names the day, the hour, the wheels and the cold', () => {
    const changes = [{ at: '2026-01-09T05:00:00+01:00', lit: true, wheels: ['RF', 'LR'] }];
    const nights = [{ lit: true, coldestC: -4 }];
    expect(forecastWords({ ...forecast, changes, nights } as never, there)).toBe(
      'The tires do not light the lamp now. It lights on Fri 9 Jan at 05:00 for RF and LR, in the night that falls to −4 °C.',
    );
  });

  it('does not take a lamp that goes out by itself for a tire that is full', () => {
    const changes = [{ at: '2026-01-09T12:00:00+01:00', lit: false, wheels: [] }];
    expect(forecastWords({ ...forecast, litNow: true, changes } as never, there)).toMatch(/fill to placard/);
  });
});
