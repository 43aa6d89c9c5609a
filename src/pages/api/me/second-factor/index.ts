import { setSecondFactor } from '../../../../services/second-factor';
import { serve, tokenOf } from '../../../_http';

export const POST = serve('setSecondFactor', ({ body, who, context }) =>
  setSecondFactor(who, body, tokenOf(context)),
);
