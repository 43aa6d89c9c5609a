import { success } from '../../../core/result';
import { lookUp } from '../../../services/vehicles';
import { serve } from '../../_http';

/** `?vin=` or `?plate=`: the vehicle that was here before, or null. */
export const GET = serve('vehicle', async ({ query: { vin, plate } }) => {
  const known = vin || plate ? await lookUp({ ...(vin && { vin }), ...(plate && { plate }) }) : undefined;
  return success({ vehicle: known ?? null });
});
