import { z } from 'zod';
import { failure, success } from '../../core/result';
import type { WeatherService } from './port';

/** A GeoJSON Feature (RFC 7946) whose properties hold hours of `{ at, celsius }`. */
const featureSchema = z.object({
  type: z.literal('Feature'),
  geometry: z.object({ type: z.literal('Point'), coordinates: z.array(z.number()).min(2).max(3) }),
  properties: z.object({
    place: z.string(),
    hours: z
      .array(z.object({ at: z.iso.datetime({ offset: true }), celsius: z.number().min(-90).max(60) }))
      .max(400),
  }),
});

const patienceMs = 4000;

/** A service on the network that answers one GET. Problems: `weather-unreachable`, `weather-unclear`. */
export function geoJsonWeather(url: string): WeatherService {
  return {
    hourly: async () => {
      let answer: unknown;
      try {
        const response = await fetch(url, { signal: AbortSignal.timeout(patienceMs) });
        answer = response.ok ? await response.json() : undefined;
      } catch {
        return failure(
          'weather-unreachable',
          'The weather service does not answer. Type the temperatures instead.',
        );
      }
      const parsed = featureSchema.safeParse(answer);
      if (!parsed.success)
        return failure(
          'weather-unclear',
          'The weather service answered nonsense. Type the temperatures instead.',
        );
      const { geometry, properties } = parsed.data;
      const hours = [...properties.hours].sort((a, b) => Date.parse(a.at) - Date.parse(b.at));
      return success({ place: properties.place, altitudeM: geometry.coordinates[2], hours });
    },
  };
}
