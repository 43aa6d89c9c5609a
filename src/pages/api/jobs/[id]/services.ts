import { serviceSensor } from '../../../../services/sensor-services';
import { serve } from '../../../_http';

export const POST = serve('serviceSensor', ({ id, body, who }) => serviceSensor(id, body, who));
