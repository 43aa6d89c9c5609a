import { noteProgrammed } from '../../../../services/programming';
import { serve } from '../../../_http';

export const POST = serve('noteProgrammed', ({ id, body, who }) => noteProgrammed(id, body, who));
