import { z } from 'zod';
import { signInWithPin } from '../../services/pins';
import { isText } from '../../contract/document';
import { agentOf, deviceCookie } from '../_http';
import { signingIn } from '../_sign-in';

const credentials = z.object({
  name: z.string().trim().min(1).max(80).refine(isText),
  pin: z.string().min(1).max(12).refine(isText),
});

export const POST = signingIn(credentials, 'wrong-pin', (asked, { cookies, request }) =>
  signInWithPin(asked, cookies.get(deviceCookie)?.value, agentOf(request)),
);
