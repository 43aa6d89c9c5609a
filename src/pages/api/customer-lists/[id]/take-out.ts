import { takeOutList } from '../../../../services/customer-lists';
import { serve } from '../../../_http';

export const POST = serve('takeOutList', ({ id, who }) => takeOutList(id, who));
