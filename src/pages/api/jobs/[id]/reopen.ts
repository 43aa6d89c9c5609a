import { reopenJob } from '../../../../services/jobs';
import { serve } from '../../../_http';

export const POST = serve('reopenJob', ({ id, body, who }) => reopenJob(id, body, who));
