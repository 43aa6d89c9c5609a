import { readInRun } from '../../../../services/runs';
import { serve } from '../../../_http';

export const POST = serve('readInRun', ({ id, body, who }) => readInRun(id, body, who));
