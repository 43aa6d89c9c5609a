import type { Result } from '../../core/result';
import type { Hour } from '../../core/measure/weather';

/** What the app asks of a weather service: the hours to come at the shop. */
export interface WeatherService {
  hourly: () => Promise<Result<Weather>>;
}

export interface Weather {
  place: string;
  /** Of the place, m; undefined where the service does not say. */
  altitudeM?: number | undefined;
  /** From the running hour on, in order. */
  hours: Hour[];
}
