import type { APIContext, APIRoute } from 'astro';
import type { z } from 'zod';
import { parseJson } from '../contract/document';
import { noCredentials } from '../contract/refusals';
import type { Result } from '../core/result';
import { rememberBrowser, sessionHours, type Person } from '../services/people';
import {
  bodyText,
  cookieKept,
  deviceDays,
  json,
  knownCookie,
  localPath,
  problemResponse,
  respond,
  sessionCookie,
} from './_http';

type SignedIn = Result<{ token: string; person: Person }>;

/**
 * Signing in by one way of showing who one is: a form goes on to a page, JSON is answered. `wrong` names what did not
 * match to the page a form comes from.
 */
export const signingIn =
  <Asked>(
    credentials: z.ZodType<Asked>,
    wrong: 'wrong-name-or-passphrase' | 'wrong-pin',
    signIn: (asked: Asked, context: APIContext) => Promise<SignedIn>,
  ): APIRoute =>
  async (context) => {
    const { request, cookies, redirect } = context;
    const text = await bodyText(request);
    if (!text.ok) return problemResponse(text.problem);
    const isForm =
      request.headers.get('content-type')?.startsWith('application/x-www-form-urlencoded') ?? false;
    const form = new URLSearchParams(isForm ? text.value : '');
    const document = isForm ? { ok: true as const, value: Object.fromEntries(form) } : parseJson(text.value);
    const asked = credentials.safeParse(document.ok ? document.value : undefined);
    const next = localPath(form.get('next'));
    const again = (code: string) =>
      redirect(
        `/sign-in?problem=${code === 'wrong-name-or-passphrase' ? wrong : code}&next=${encodeURIComponent(next)}`,
        303,
      );
    if (!asked.success) return isForm ? again(wrong) : respond(noCredentials());
    const signedIn = await signIn(asked.data, context);
    if (!signedIn.ok) return isForm ? again(signedIn.problem.code) : problemResponse(signedIn.problem);
    cookies.set(sessionCookie, signedIn.value.token, cookieKept(sessionHours * 3600));
    const known = await rememberBrowser(cookies.get(knownCookie)?.value);
    cookies.set(knownCookie, known, cookieKept(deviceDays * 86_400));
    const { name, role } = signedIn.value.person;
    return isForm ? redirect(next, 303) : json({ name, role });
  };
