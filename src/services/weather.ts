import { noWeather } from '../contract/refusals';
import type { Result } from '../core/result';
import { addressText, noteDevice } from './devices';
import { geoJsonWeather } from '../devices/weather/geojson-weather';
import type { Weather } from '../devices/weather/port';

/** An answer is good for so long; the service need not be asked for every screen. */
const keptMs = 5 * 60_000;
let kept: { at: number; weather: Result<Weather> } | undefined;

/** The hours to come, where a service is set up. Problems: `no-weather`, and those of the service. */
export async function weather(now = Date.now()): Promise<Result<Weather>> {
  const url = addressText('weather');
  if (!url || !URL.canParse(url)) return noWeather();
  if (kept && now - kept.at < keptMs) return kept.weather;
  const answer = await geoJsonWeather(url).hourly();
  noteDevice('weather', answer);
  // What failed is asked again at once: the line may be back.
  if (answer.ok) kept = { at: now, weather: answer };
  return answer;
}
