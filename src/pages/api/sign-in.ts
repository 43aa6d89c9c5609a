import { z } from 'zod';
import { signIn } from '../../services/people';
import { isText } from '../../contract/document';
import { agentOf, knownCookie } from '../_http';
import { signingIn } from '../_sign-in';

const credentials = z.object({
  name: z.string().trim().min(1).max(80).refine(isText),
  passphrase: z.string().min(1).max(128).refine(isText),
});

export const POST = signingIn(
  credentials,
  'wrong-name-or-passphrase',
  ({ name, passphrase }, { clientAddress, cookies, request }) =>
    signIn(name, passphrase, {
      address: clientAddress,
      agent: agentOf(request),
      known: cookies.get(knownCookie)?.value,
    }),
);
