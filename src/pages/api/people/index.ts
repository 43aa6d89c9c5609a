import { z } from 'zod';
import { success } from '../../../core/outcome';
import { addPerson, listPeople, refuseUnless, roles } from '../../../services/people';
import { json, personOf, post, problemResponse } from '../../_http';
import type { APIRoute } from 'astro';

export const GET: APIRoute = async (context) => {
  const refusal = refuseUnless(personOf(context), 'manage-people');
  return refusal && !refusal.ok ? problemResponse(refusal.problem) : json(await listPeople());
};

const newPerson = z.object({
  name: z.string().trim().min(1).max(80),
  role: z.enum(roles),
  passphrase: z.string().max(200),
});

export const POST = post(newPerson, async (asked, who) => {
  const refusal = refuseUnless(who, 'manage-people');
  if (refusal) return refusal;
  const added = await addPerson(asked);
  return added.ok ? success({ id: added.value.id }) : added;
});
