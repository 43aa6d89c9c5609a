import { z } from 'zod';
import { setRetired } from '../../../../services/gauges';
import { postToGauge } from '../../../_http';

/** Takes a gauge out of use or back into it. */
export const POST = postToGauge(z.object({ retired: z.boolean() }), (id, { retired }, who) =>
  setRetired(id, retired, who),
);
