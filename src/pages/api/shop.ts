import { setShop } from '../../services/shop';
import { serve } from '../_http';

export const POST = serve('setShop', ({ body, who }) => setShop(body, who));
