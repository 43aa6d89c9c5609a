import { RateLimiterMemory } from 'rate-limiter-flexible';
import { tooManyRequests } from '../contract/refusals';
import type { Result } from '../core/result';

/** So many jobs a minute may be judged for one address: far more than a shop has, and less than holds it up (judgement). */
const perMinute = 1200;

const limiter = new RateLimiterMemory({ points: perMinute, duration: 60 });

/** Problem: `too-many-requests`. */
export async function refuseHurry(address: string): Promise<Result<never> | undefined> {
  const refused = await limiter.consume(address).then(
    () => false,
    () => true,
  );
  return refused ? tooManyRequests(perMinute) : undefined;
}
