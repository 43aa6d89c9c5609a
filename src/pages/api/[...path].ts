import type { APIRoute } from 'astro';
import type { RouteName } from '../../contract';
import { missing } from '../../contract/missing';
import { noEndpoint } from '../../contract/refusals';
import { answerAs, isUuid, respond, type Works } from '../_http';
import { answers, isWork, works } from '../_endpoints';

/** Every address under `/api/`: what stands there is in the routes of the contract, and the middleware has found it. */
export const ALL: APIRoute = (context) => {
  const { route } = context.locals;
  if (route?.name === undefined) return respond(noEndpoint());
  const { name, of, named } = route;
  if (of && !isUuid(named)) return respond(missing[of]());
  if (!isWork(name)) return answers[name](context, named);
  return answerAs<RouteName>(name, works[name] as Works[RouteName], { id: named, context });
};
