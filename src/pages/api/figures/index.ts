import { success } from '../../../core/result';
import { shopFigures } from '../../../services/confirmations';
import { serve } from '../../_http';

export const GET = serve('figures', async () => success(await shopFigures()));
