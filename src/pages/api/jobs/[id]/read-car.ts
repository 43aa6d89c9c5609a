import { readCar } from '../../../../services/car';
import { serve } from '../../../_http';

export const POST = serve('readCar', ({ id, body, who }) => readCar(id, body.key, who));
