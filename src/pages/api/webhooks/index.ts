import { addWebhook, toldAddresses } from '../../../services/webhooks';
import { serve } from '../../_http';

export const GET = serve('toldAddresses', ({ who }) => toldAddresses(who));
export const POST = serve('addWebhook', ({ body, who }) => addWebhook(body, who));
