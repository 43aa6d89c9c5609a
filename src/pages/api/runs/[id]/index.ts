import { viewRun } from '../../../../services/runs';
import { serve } from '../../../_http';

export const GET = serve('run', ({ id }) => viewRun(id));
