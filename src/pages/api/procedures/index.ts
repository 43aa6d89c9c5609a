import { success } from '../../../core/result';
import { listProcedures, saveProcedures } from '../../../services/procedures';
import { serve } from '../../_http';

export const GET = serve('procedures', async () => success(await listProcedures()));
export const POST = serve('saveProcedures', ({ body, who }) => saveProcedures(body, who));
