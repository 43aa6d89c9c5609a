import { z } from 'zod';
import { signInWithCode } from '../../services/second-factor';
import { isText } from '../../contract/document';
import { agentOf, sessionCookie } from '../_http';
import { signingIn } from '../_sign-in';

const credentials = z.object({ code: z.string().trim().min(1).max(40).refine(isText) });

export const POST = signingIn(credentials, 'wrong-code', ({ code }, { cookies, request }) =>
  signInWithCode(cookies.get(sessionCookie)?.value, code, agentOf(request)),
);
