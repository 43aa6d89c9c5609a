import { shopSettingsSchema } from '../../core/shop';
import { setShop } from '../../services/shop';
import { post } from '../_http';

export const POST = post(shopSettingsSchema, (settings, who) => setShop(settings, who));
