import { readOnBench } from '../../../../services/readings';
import { serve } from '../../../_http';

export const POST = serve('readOnBench', ({ id, body, who }) => readOnBench(id, body, who));
