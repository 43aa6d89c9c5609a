import { wake } from '../../../../services/readings';
import { serve } from '../../../_http';

export const POST = serve('wake', ({ id, body, who }) => wake(id, body, who));
