import { success } from '../../core/result';
import { listProfiles, saveProfiles } from '../../services/vehicles';
import { serve } from '../_http';

export const GET = serve('profiles', async () => success(await listProfiles()));
export const POST = serve('saveProfiles', ({ body, who }) => saveProfiles(body, who));
