import { LRUCache } from 'lru-cache';
import type { LifeCurve } from '../core/sensor/life';
import { livesOf, ownCurve, type SensorLives } from '../core/sensor/life/lifetimes';
import { schemaNow } from '../data/database';
import { sensorsSeenAtAges } from '../data/sensor-lives';
import { log, traceOf } from './log';

/** How long the shop's own sensors lasted: counted over thousands of visits, and from one hour to the next the same; of each shop by itself. */
const counted = new LRUCache<string, SensorLives>({
  max: 32,
  ttl: 3_600_000,
  allowStale: true,
  noDeleteOnStaleGet: true,
  fetchMethod: async () => livesOf(await sensorsSeenAtAges()),
});

/** As it was counted last; the first to ask waits for it. */
export const sensorLives = async (): Promise<SensorLives> =>
  (await counted.fetch(schemaNow())) ?? livesOf(await sensorsSeenAtAges());

/** The curve by which sensors are expected to end, where enough of the shop's own did. Nobody at a car waits for the count. */
export function shopCurve(): LifeCurve | undefined {
  if (counted.getRemainingTTL(schemaNow()) <= 0)
    void counted
      .fetch(schemaNow())
      .catch((error: unknown) => log.warn(traceOf(error), 'the lives of sensors were not counted'));
  const lives = counted.get(schemaNow());
  return lives && ownCurve(lives);
}
