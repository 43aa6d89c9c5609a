import { traces } from '../../services/looks';
import { serve } from '../_http';

export const GET = serve('traces', ({ query, who }) => traces(query, who));
