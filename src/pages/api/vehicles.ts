import type { APIRoute } from 'astro';
import { lookUp } from '../../services/vehicles';
import { json } from '../_http';

/** `?vin=` or `?plate=`: the vehicle that was here before, or null. */
export const GET: APIRoute = async ({ url }) => {
  const vin = url.searchParams.get('vin')?.slice(0, 40);
  const plate = url.searchParams.get('plate')?.slice(0, 40);
  const known = vin || plate ? await lookUp({ ...(vin && { vin }), ...(plate && { plate }) }) : undefined;
  return json({ vehicle: known ?? null });
};
