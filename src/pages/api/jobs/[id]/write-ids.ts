import { writeIds } from '../../../../services/car';
import { serve } from '../../../_http';

export const POST = serve('writeIds', ({ id, body, who }) => writeIds(id, body, who));
