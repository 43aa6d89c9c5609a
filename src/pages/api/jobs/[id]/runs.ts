import { startRun } from '../../../../services/runs';
import { serve } from '../../../_http';

export const POST = serve('startRun', ({ id, body, who }) => startRun(id, body, who));
