import type { AnswerOf, RouteName } from '../contract';
import { offline } from '../contract/refusals';
import type { Result } from '../core/result';
import type { Asked } from './request';

/**
 * One request to the app, by the name of its use case. Every way it can fail is a problem with a sentence; what it
 * answers is held against the contract, so that nothing else gets in.
 */
export async function ask<Name extends RouteName>(
  name: Name,
  asked: Asked<Name> = {},
): Promise<Result<AnswerOf<Name>>> {
  // What speaks to the shop comes when it is first needed: the page shows without it.
  const shop = await import('./request').catch(() => undefined);
  return shop ? shop.request(name, asked) : offline();
}
