import { refuseUnless } from '../../../services/people';
import { unpairDevice } from '../../../services/pins';
import { serve } from '../../_http';

export const POST = serve(
  'unpairDevice',
  async ({ body, who }) => refuseUnless(who, 'manage-people') ?? (await unpairDevice(body.device)),
);
