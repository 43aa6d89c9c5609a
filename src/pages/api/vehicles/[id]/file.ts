import type { APIRoute } from 'astro';
import { unknownVehicle } from '../../../../contract/refusals';
import { exportVehicle } from '../../../../services/exports';
import { isUuid, json, problemResponse } from '../../../_http';

/** All of one vehicle, to be handed to its owner or the next shop. */
export const GET: APIRoute = async ({ params: { id = '' } }) => {
  const file = isUuid(id) ? await exportVehicle(id) : unknownVehicle();
  if (!file.ok) return problemResponse(file.problem);
  const name = (file.value.vehicle.plate ?? id).replace(/[^A-Za-z0-9-]/g, '-');
  return json(file.value, 200, { 'content-disposition': `attachment; filename="${name}.vehicle.json"` });
};
