import { record } from '../../../../services/jobs';
import { serve } from '../../../_http';

export const POST = serve('record', ({ id, body, who }) => record(id, body, who));
