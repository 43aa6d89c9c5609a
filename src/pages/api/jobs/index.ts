import { success } from '../../../core/result';
import { bookIn } from '../../../services/jobs';
import { listJobs } from '../../../services/search';
import { serve } from '../../_http';

export const GET = serve('jobs', async ({ query }) => success(await listJobs(query)));
export const POST = serve('bookIn', ({ body, who }) => bookIn(body, who));
