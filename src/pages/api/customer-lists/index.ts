import { bringInList, customerLists } from '../../../services/customer-lists';
import { serve } from '../../_http';

export const GET = serve('customerLists', ({ who }) => customerLists(who));
export const POST = serve('bringInList', ({ body, who }) => bringInList(body, who));
