import { success } from '../../core/outcome';
import { shopFigures } from '../../services/confirmations';
import { getOf } from '../_http';

export const GET = getOf(async () => success(await shopFigures()));
