import { readFileSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import { afterAll, afterEach, describe, expect, it } from 'vitest';
import { root } from '../../src/cli/instance';
import { nightsOf } from '../../src/core/measure/weather';
import { geoJsonWeather } from '../../src/devices/weather/geojson-weather';
import { weather } from '../../src/services/weather';
import { scenarioSchema, weatherService } from '../../src/standins/weather';

const servers: Server[] = [];
async function serve(server: Server): Promise<string> {
  servers.push(server);
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  return `http://127.0.0.1:${(server.address() as AddressInfo).port}/hourly`;
}
const answering = (body: string, status = 200) =>
  serve(createServer((_, response) => response.writeHead(status).end(body)));
const standIn = () =>
  serve(
    weatherService(
      scenarioSchema.parse(JSON.parse(readFileSync(join(root, 'demo/weather.json'), 'utf8'))),
      new Date(),
    ),
  );
afterAll(() => servers.forEach((server) => server.close()));
afterEach(() => delete process.env.HACIENDA_WEATHER);

describe('a weather service', () => {
  it('gives a week of hours and the height of the place', async () => {
    const found = await geoJsonWeather(await standIn()).hourly();
    expect(found).toMatchObject({ ok: true, value: { altitudeM: 1640 } });
    expect(found.ok && found.value.hours).toHaveLength(168);
    expect(found.ok && nightsOf(found.value.hours).length).toBeGreaterThanOrEqual(7);
  });

  const hour = { at: '2026-01-09T09:00:00+01:00', celsius: -3 };
  const feature = (more: object) =>
    JSON.stringify({
      type: 'Feature',
      geometry: { type: 'Point', coordinates: [0, 0] },
      properties: { place: 'Candil valley', hours: [hour] },
      ...more,
    });

  it('may leave out the height, and put its hours in any order', async () => {
    const later = { ...hour, at: '2026-01-09T10:00:00+01:00' };
    const properties = { place: 'Candil valley', hours: [later, hour] };
    const found = await geoJsonWeather(await answering(feature({ properties }))).hourly();
    expect(found).toMatchObject({ ok: true, value: { altitudeM: undefined, hours: [hour, later] } });
  });

  it.each([
    ['no JSON', 'rain'],
    ['another shape', '{"type":"Feature"}'],
    [
      'a temperature that cannot be',
      feature({ properties: { place: 'x', hours: [{ ...hour, celsius: 400 }] } }),
    ],
  ])('that answers %s is told, and temperatures are typed', async (_, body) => {
    const found = await geoJsonWeather(await answering(body)).hourly();
    expect(found.ok).toBe(false);
    expect(!found.ok && found.problem.message).toMatch(/Type the temperatures instead\.$/);
  });

  it('that is down, or refuses, is told', async () => {
    const refusing = await geoJsonWeather(await answering('no', 500)).hourly();
    expect(refusing).toMatchObject({ ok: false, problem: { code: 'weather-unclear' } });
    const gone = await geoJsonWeather('http://127.0.0.1:9/hourly').hourly();
    expect(gone).toMatchObject({ ok: false, problem: { code: 'weather-unreachable' } });
  });
});

describe('the weather of the shop', () => {
  it('is not there where no service is set up', async () => {
    expect(await weather()).toMatchObject({ ok: false, problem: { code: 'no-weather' } });
  });

  it('is asked for once in five minutes, and again at once where it failed', async () => {
    let asked = 0;
    let answer = '{}';
    process.env.HACIENDA_WEATHER = await serve(
      createServer((_, response) => {
        asked += 1;
        response.end(answer);
      }),
    );
    const start = Date.parse('2026-01-09T09:00:00Z');
    expect((await weather(start)).ok).toBe(false);
    answer = JSON.stringify({
      type: 'Feature',
      geometry: { type: 'Point', coordinates: [0, 0, 5] },
      properties: { place: 'x', hours: [] },
    });
    expect((await weather(start + 1000)).ok).toBe(true);
    expect((await weather(start + 60_000)).ok).toBe(true);
    expect(asked).toBe(2);
    await weather(start + 6 * 60_000);
    expect(asked).toBe(3);
  });
});
