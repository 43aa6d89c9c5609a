import { success } from '../../../core/result';
import { procedureFlags } from '../../../services/procedures';
import { serve } from '../../_http';

export const GET = serve('procedureFlags', async () => success(await procedureFlags()));
