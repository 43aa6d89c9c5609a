import { hearCar } from '../../../../services/runs';
import { serve } from '../../../_http';

export const GET = serve('hearCar', ({ id }) => hearCar(id));
