import { createServer, type Server } from 'node:http';
import { z } from 'zod';

/** A week of weather of an invented valley: for each day the temperature of each hour, °C. */
export const scenarioSchema = z.object({
  place: z.string(),
  /** Longitude, latitude, height in metres: the order of GeoJSON. */
  coordinates: z.tuple([z.number(), z.number(), z.number()]),
  days: z.array(z.array(z.number()).length(24)).min(1),
});
type Scenario = z.infer<typeof scenarioSchema>;

const weekHours = 7 * 24;
const hourMs = 3_600_000;

/**
 * The forecast of a moment as a GeoJSON Feature (RFC 7946): the place, and a week of hours from the one
 * that is running. The scenario's first day is the day the service began; after its last it starts over.
 */
export function forecastFrom(scenario: Scenario, began: Date, now: Date) {
  const { place, coordinates, days } = scenario;
  const running = new Date(now);
  running.setMinutes(0, 0, 0);
  const hours = Array.from({ length: weekHours }, (_, n) => {
    const hour = new Date(running.getTime() + n * hourMs);
    const day = days[daysBetween(began, hour) % days.length] ?? [];
    return { at: localTimestamp(hour), celsius: day[hour.getHours()] ?? 0 };
  });
  return {
    type: 'Feature',
    geometry: { type: 'Point', coordinates },
    properties: { place, updated: localTimestamp(now), hours },
  };
}

const midnight = (date: Date) => Date.UTC(date.getFullYear(), date.getMonth(), date.getDate());
const daysBetween = (from: Date, to: Date) => Math.round((midnight(to) - midnight(from)) / (24 * hourMs));

/** ISO 8601 with the offset of this machine: a night is a matter of the local clock. */
function localTimestamp(date: Date): string {
  const offsetMinutes = -date.getTimezoneOffset();
  const local = new Date(date.getTime() + offsetMinutes * 60_000).toISOString().slice(0, 19);
  const two = (n: number) => String(Math.floor(Math.abs(n))).padStart(2, '0');
  return `${local}${offsetMinutes < 0 ? '-' : '+'}${two(offsetMinutes / 60)}:${two(offsetMinutes % 60)}`;
}

/** Serves the forecast over HTTP at `/hourly`, as a weather service on the network would. */
export function weatherService(scenario: Scenario, began: Date): Server {
  return createServer((request, response) => {
    const found = request.method === 'GET' && request.url === '/hourly';
    response.writeHead(found ? 200 : 404, { 'content-type': 'application/geo+json' });
    response.end(found ? JSON.stringify(forecastFrom(scenario, began, new Date())) : '{}');
  });
}
