import { success } from '../../core/result';
import { yard } from '../../services/jobs';
import { serve } from '../_http';

export const GET = serve('yard', async () => success(await yard()));
