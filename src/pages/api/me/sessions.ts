import { success } from '../../../core/result';
import { endOneSession, sessionsOf } from '../../../services/pins';
import { serve, tokenOf } from '../../_http';

export const GET = serve('sessions', async ({ who, context }) =>
  success(await sessionsOf(who, tokenOf(context))),
);
export const POST = serve('endSession', ({ body, who }) => endOneSession(who, body.session));
