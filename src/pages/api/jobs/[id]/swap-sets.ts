import { swapSets } from '../../../../services/wheel-sets';
import { serve } from '../../../_http';

export const POST = serve('swapSets', ({ id, body, who }) => swapSets(id, body, who));
