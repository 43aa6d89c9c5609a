import { changeWebhook } from '../../../services/webhooks';
import { serve } from '../../_http';

export const POST = serve('changeWebhook', ({ id, body, who }) => changeWebhook(id, body, who));
