import { clearCodes } from '../../../../services/car';
import { serve } from '../../../_http';

export const POST = serve('clearCodes', ({ id, body, who }) => clearCodes(id, body.key, who));
