import { flagProcedure } from '../../../../services/runs';
import { serve } from '../../../_http';

export const POST = serve('flagProcedure', ({ id, body, who }) => flagProcedure(id, body, who));
