import { useEffect, useState } from 'react';
import type { Result } from '../../core/result';
import type { Hour } from '../../core/measure/weather';
import { ask } from '../api';

export interface Weather {
  place: string;
  altitudeM?: number;
  hours: Hour[];
}

/** The hours to come from the shop's weather service; undefined while they are on their way. */
export function useWeather(): Result<Weather> | undefined {
  const [weather, setWeather] = useState<Result<Weather>>();
  useEffect(() => {
    void ask('weather').then(setWeather);
  }, []);
  return weather;
}
