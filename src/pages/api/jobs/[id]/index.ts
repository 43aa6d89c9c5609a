import { editJob, viewJob } from '../../../../services/jobs';
import { serve } from '../../../_http';

export const GET = serve('job', ({ id }) => viewJob(id));
export const PATCH = serve('editJob', ({ id, body, who }) => editJob(id, body, who));
