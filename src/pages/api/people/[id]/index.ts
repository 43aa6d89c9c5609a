import { refuseUnless, setActive } from '../../../../services/people';
import { serve } from '../../../_http';

export const PATCH = serve(
  'setActive',
  async ({ id, body, who }) => refuseUnless(who, 'manage-people') ?? (await setActive(who, id, body.active)),
);
