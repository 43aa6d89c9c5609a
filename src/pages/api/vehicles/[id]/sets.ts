import { saveSet } from '../../../../services/wheel-sets';
import { serve } from '../../../_http';

export const POST = serve('saveSet', ({ id, body }) => saveSet(id, body));
