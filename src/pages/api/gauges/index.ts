import { success } from '../../../core/result';
import { addGauge, register } from '../../../services/gauges';
import { serve } from '../../_http';

export const GET = serve('gauges', async () => success(await register()));
export const POST = serve('addGauge', ({ body, who }) => addGauge(body, who));
