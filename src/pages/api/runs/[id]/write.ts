import { writeInRun } from '../../../../services/runs';
import { serve } from '../../../_http';

export const POST = serve('writeInRun', ({ id, body, who }) => writeInRun(id, body, who));
