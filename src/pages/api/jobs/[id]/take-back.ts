import { takeBack } from '../../../../services/jobs';
import { serve } from '../../../_http';

export const POST = serve('takeBack', ({ id, body, who }) => takeBack(id, body, who));
