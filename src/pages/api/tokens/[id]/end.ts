import { endToken } from '../../../../services/api-tokens';
import { serve } from '../../../_http';

export const POST = serve('endToken', ({ id, who }) => endToken(id, who));
