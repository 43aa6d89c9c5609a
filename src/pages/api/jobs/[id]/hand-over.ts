import { handOver } from '../../../../services/jobs';
import { serve } from '../../../_http';

export const POST = serve('handOver', ({ id, body, who }) => handOver(id, body, who));
