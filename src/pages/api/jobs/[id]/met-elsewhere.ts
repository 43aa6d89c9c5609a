import { metElsewhere } from '../../../../services/past';
import { serve } from '../../../_http';

export const GET = serve('metElsewhere', ({ id }) => metElsewhere(id));
