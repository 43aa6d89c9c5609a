import { confirm } from '../../../../services/jobs';
import { serve } from '../../../_http';

export const POST = serve('confirm', ({ id, body, who }) => confirm(id, body, who));
