import { setSecret } from '../../../services/pins';
import { serve, tokenOf } from '../../_http';

export const POST = serve('setSecret', ({ body, who, context }) => {
  const { passphrase, next, pin } = body;
  return setSecret(
    who,
    { passphrase, ...(next !== undefined && { next }), ...(pin !== undefined && { pin }) },
    tokenOf(context),
  );
});
