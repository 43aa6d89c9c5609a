import { success } from '../../core/result';
import { listParts, saveParts } from '../../services/parts';
import { serve } from '../_http';

export const GET = serve('parts', async () => success(await listParts()));
export const POST = serve('saveParts', ({ body, who }) => saveParts(body, who));
