import { programSensor } from '../../../../../services/programming';
import { serve } from '../../../../_http';

export const POST = serve('programSensor', ({ id, body, who }) => programSensor(id, body, who));
