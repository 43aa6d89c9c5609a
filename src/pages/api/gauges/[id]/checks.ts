import { recordCheck } from '../../../../services/gauges';
import { serve } from '../../../_http';

export const POST = serve('recordCheck', ({ id, body, who }) => recordCheck(id, body, who));
