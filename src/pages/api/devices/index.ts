import { success } from '../../../core/result';
import { devicesAsHeard, tryDevice } from '../../../services/devices';
import { serve } from '../../_http';

export const GET = serve('devices', () => Promise.resolve(success(devicesAsHeard())));
export const POST = serve('tryDevice', async ({ body, who }) =>
  success(await tryDevice(body.kind, who.name)),
);
