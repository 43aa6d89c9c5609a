import { writeThresholds } from '../../../../services/car';
import { serve } from '../../../_http';

export const POST = serve('writeThresholds', ({ id, body, who }) => writeThresholds(id, body, who));
