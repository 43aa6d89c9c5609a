import { tellRun } from '../../../../services/runs';
import { serve } from '../../../_http';

export const POST = serve('tellRun', ({ id, body, who }) => tellRun(id, body.told, who));
