import { tryDry } from '../../../../services/runs';
import { serve } from '../../../_http';

export const POST = serve('tryDry', ({ id, body, who }) => tryDry(id, body, who));
