import { wakeInRun } from '../../../../services/runs';
import { serve } from '../../../_http';

export const POST = serve('wakeInRun', ({ id, body, who }) => wakeInRun(id, body, who));
