import { lookAt, practise } from '../../../../services/practice';
import { serve } from '../../../_http';

export const GET = serve('practiceCar', ({ id }) => lookAt(id));
export const POST = serve('practise', ({ id, body, who }) => practise(id, body, who));
