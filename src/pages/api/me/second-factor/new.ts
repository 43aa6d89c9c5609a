import { newSecret } from '../../../../services/second-factor';
import { serve } from '../../../_http';

export const POST = serve('newSecondFactor', ({ body, who }) => newSecret(who, body.passphrase));
