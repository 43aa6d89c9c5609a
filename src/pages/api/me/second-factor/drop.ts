import { dropSecondFactor } from '../../../../services/second-factor';
import { serve } from '../../../_http';

export const POST = serve('dropSecondFactor', ({ body, who }) => dropSecondFactor(who, body.passphrase));
