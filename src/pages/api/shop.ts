import { success } from '../../core/result';
import { setShop, shopSettings } from '../../services/shop';
import { serve } from '../_http';

export const GET = serve('shop', async () => success(await shopSettings()));
export const POST = serve('setShop', ({ body, who }) => setShop(body, who));
