import { apiTokens, makeToken } from '../../../services/api-tokens';
import { serve } from '../../_http';

export const GET = serve('apiTokens', ({ who }) => apiTokens(who));
export const POST = serve('makeToken', ({ body, who }) => makeToken(body, who));
