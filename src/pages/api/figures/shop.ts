import { figuresOfShop } from '../../../services/shop-figures';
import { serve } from '../../_http';

export const GET = serve('shopFigures', ({ query, who }) => figuresOfShop(query, who));
