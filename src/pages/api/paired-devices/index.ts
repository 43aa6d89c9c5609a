import { success } from '../../../core/result';
import { refuseUnless } from '../../../services/people';
import { listPairedDevices, pairDevice } from '../../../services/pins';
import { cookieKept, deviceCookie, deviceDays, serve } from '../../_http';

export const GET = serve(
  'pairedDevices',
  async ({ who }) => refuseUnless(who, 'manage-people') ?? success(await listPairedDevices()),
);

export const POST = serve('pairDevice', async ({ body, who, context: { cookies } }) => {
  const refusal = refuseUnless(who, 'manage-people');
  if (refusal) return refusal;
  const { token, devices } = await pairDevice(body.name, who);
  cookies.set(deviceCookie, token, cookieKept(deviceDays * 86_400));
  return success(devices);
});
