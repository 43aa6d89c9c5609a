import { bookIn } from '../../../services/jobs';
import { serve } from '../../_http';

export const POST = serve('bookIn', ({ body, who }) => bookIn(body, who));
