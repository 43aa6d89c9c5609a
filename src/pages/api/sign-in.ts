import type { APIRoute } from 'astro';
import { z } from 'zod';
import { noCredentials } from '../../contract/refusals';
import { sessionHours, signIn } from '../../services/people';
import { bodyText, isText, json, parseJson, problemResponse, respond, sessionCookie } from '../_http';

const credentials = z.object({
  name: z.string().trim().min(1).max(80).refine(isText),
  passphrase: z.string().min(1).max(200).refine(isText),
});

/** Takes a form (and goes on to a page) or JSON (and answers). */
export const POST: APIRoute = async ({ request, cookies, clientAddress, redirect, url }) => {
  const text = await bodyText(request);
  if (!text.ok) return problemResponse(text.problem);
  const isForm =
    request.headers.get('content-type')?.startsWith('application/x-www-form-urlencoded') ?? false;
  const form = new URLSearchParams(isForm ? text.value : '');
  const document = isForm ? { ok: true as const, value: Object.fromEntries(form) } : parseJson(text.value);
  const asked = credentials.safeParse(document.ok ? document.value : undefined);
  const next = localPath(form.get('next'));
  const again = (code: string) => redirect(`/sign-in?problem=${code}&next=${encodeURIComponent(next)}`, 303);
  if (!asked.success) {
    return isForm ? again('wrong-name-or-passphrase') : respond(noCredentials());
  }
  const signedIn = await signIn(asked.data.name, asked.data.passphrase, clientAddress);
  if (!signedIn.ok) return isForm ? again(signedIn.problem.code) : problemResponse(signedIn.problem);
  cookies.set(sessionCookie, signedIn.value.token, {
    httpOnly: true,
    sameSite: 'strict',
    secure: url.protocol === 'https:',
    path: '/',
    maxAge: sessionHours * 3600,
  });
  return isForm
    ? redirect(next, 303)
    : json({ name: signedIn.value.person.name, role: signedIn.value.person.role });
};

/** Only a path of this app: never an address somebody put into the link. */
function localPath(asked: string | null): string {
  return asked && /^\/(?![/\\])/.test(asked) ? asked : '/';
}
