import { cancelJob } from '../../../../services/jobs';
import { serve } from '../../../_http';

export const POST = serve('cancelJob', ({ id, body, who }) => cancelJob(id, body, who));
