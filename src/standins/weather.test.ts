import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { nightsOf } from '../core/measure/weather';
import { forecastFrom, scenarioSchema } from './weather';

const scenario = scenarioSchema.parse(
  JSON.parse(readFileSync(new URL('../../demo/weather.json', import.meta.url), 'utf8')),
);
const began = new Date(2026, 0, 9, 9, 40);

describe('the weather stand-in', () => {
  it('gives a week of hours from the running one, as a GeoJSON point with its height', () => {
    const forecast = forecastFrom(scenario, began, began);
    expect(forecast.type).toBe('Feature');
    expect(forecast.geometry.coordinates[2]).toBe(1640);
    const { hours } = forecast.properties;
    expect(hours).toHaveLength(168);
    expect(Date.parse(hours[0]?.at ?? '')).toBe(new Date(2026, 0, 9, 9).getTime());
    expect(
      hours.every(
        ({ at }, n) => n === 0 || Date.parse(at) - Date.parse(hours[n - 1]?.at ?? '') === 3_600_000,
      ),
    ).toBe(true);
  });

  it('has the same temperature for the same hour whenever it is asked', () => {
    const later = new Date(2026, 0, 11, 4, 5);
    const first = forecastFrom(scenario, began, began).properties.hours;
    const second = forecastFrom(scenario, began, later).properties.hours;
    for (const hour of second) {
      const same = first.find(({ at }) => at === hour.at);
      if (same) expect(hour).toEqual(same);
    }
  });

  it('has a cold night in its week', () => {
    const nights = nightsOf(forecastFrom(scenario, began, began).properties.hours);
    expect(nights.map(({ coldest }) => Math.round(coldest.celsius))).toEqual([
      -11, -9, -17, -24, -13, -7, -5,
    ]);
  });
});
