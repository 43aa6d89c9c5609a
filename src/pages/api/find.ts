import { success } from '../../core/result';
import { find } from '../../services/search';
import { serve } from '../_http';

export const GET = serve('find', async ({ query: { q } }) => success(await find(q)));
