import type { APIRoute } from 'astro';
import { z } from 'zod';
import { failure } from '../../../core/outcome';
import { refuseUnless, setActive } from '../../../services/people';
import { personOf, problemResponse, readBody, respond } from '../../_http';

export const PATCH: APIRoute = async (context) => {
  const body = await readBody(context.request, z.object({ active: z.boolean() }));
  if (!body.ok) return problemResponse(body.problem);
  const id = z.uuid().safeParse(context.params.id);
  const who = personOf(context);
  if (!id.success) return respond(failure('unknown-person', 'This account does not exist. Reload the page.'));
  return respond(refuseUnless(who, 'manage-people') ?? (await setActive(who, id.data, body.value.active)));
};
