import { refuseUnless } from '../../../../services/people';
import { resetPassphrase } from '../../../../services/pins';
import { serve } from '../../../_http';

export const POST = serve(
  'resetPassphrase',
  async ({ id, body, who }) =>
    refuseUnless(who, 'manage-people') ?? (await resetPassphrase(id, body.passphrase)),
);
