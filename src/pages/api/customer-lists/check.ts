import { checkList } from '../../../services/customer-lists';
import { serve } from '../../_http';

export const POST = serve('checkList', ({ body, who }) => checkList(body, who));
