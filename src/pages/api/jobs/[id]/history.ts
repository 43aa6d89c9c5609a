import { historyOf } from '../../../../services/jobs';
import { serve } from '../../../_http';

export const GET = serve('history', ({ id }) => historyOf(id));
