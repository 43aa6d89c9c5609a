import { setRetired } from '../../../../services/gauges';
import { serve } from '../../../_http';

/** Takes a gauge out of use or back into it. */
export const POST = serve('retireGauge', ({ id, body, who }) => setRetired(id, body.retired, who));
