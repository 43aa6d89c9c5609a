import { readSensorBack } from '../../../../../services/programming';
import { serve } from '../../../../_http';

export const POST = serve('readSensorBack', ({ id, body, who }) => readSensorBack(id, body, who));
