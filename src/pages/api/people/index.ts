import { success } from '../../../core/result';
import { addPerson, listPeople, refuseUnless } from '../../../services/people';
import { serve } from '../../_http';

export const GET = serve(
  'people',
  async ({ who }) => refuseUnless(who, 'manage-people') ?? success(await listPeople()),
);

export const POST = serve('addPerson', async ({ body, who }) => {
  const refusal = refuseUnless(who, 'manage-people');
  if (refusal) return refusal;
  const added = await addPerson(body);
  return added.ok ? success({ id: added.value.id }) : added;
});
