import { mergeVehicles } from '../../../../services/merges';
import { serve } from '../../../_http';

export const POST = serve('mergeVehicles', ({ id, body, who }) => mergeVehicles(id, body, who));
