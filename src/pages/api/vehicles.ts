import { success } from '../../core/result';
import { lookUp } from '../../services/vehicles';
import { isText } from '../../contract/document';
import { serve } from '../_http';

/** `?vin=` or `?plate=`: the vehicle that was here before, or null. */
export const GET = serve('vehicle', async ({ context: { url } }) => {
  const asked = (name: string) => {
    const text = url.searchParams.get(name)?.slice(0, 40);
    return text && isText(text) ? text : undefined;
  };
  const [vin, plate] = [asked('vin'), asked('plate')];
  const known = vin || plate ? await lookUp({ ...(vin && { vin }), ...(plate && { plate }) }) : undefined;
  return success({ vehicle: known ?? null });
});
