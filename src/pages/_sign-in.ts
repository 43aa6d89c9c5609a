import type { APIContext, APIRoute } from 'astro';
import type { z } from 'zod';
import { parseJson } from '../contract/document';
import { noCredentials } from '../contract/refusals';
import type { Result } from '../core/result';
import { codeMinutes, rememberBrowser, sessionHours, type SignedIn } from '../services/people';
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

/**
 * Signing in by one way of showing who one is: a form goes on to a page, JSON is answered. `wrong` names what did not
 * match to the page a form comes from.
 */
export const signingIn =
  <Asked>(
    credentials: z.ZodType<Asked>,
    wrong: 'wrong-name-or-passphrase' | 'wrong-pin' | 'wrong-code',
    signIn: (asked: Asked, context: APIContext) => Promise<Result<SignedIn>>,
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
    const page = (asks: Record<string, string>) =>
      redirect(`/sign-in?${new URLSearchParams({ ...asks, next }).toString()}`, 303);
    const again = (code: string) =>
      page({
        problem: code === 'wrong-name-or-passphrase' ? wrong : code,
        ...(wrong === 'wrong-code' && code !== 'code-too-late' && { asks: 'code' }),
      });
    if (!asked.success) return isForm ? again(wrong) : respond(noCredentials());
    const signedIn = await signIn(asked.data, context);
    if (!signedIn.ok) return isForm ? again(signedIn.problem.code) : problemResponse(signedIn.problem);
    const { awaitsCode, token } = signedIn.value;
    const { name, role } = signedIn.value.person;
    cookies.set(sessionCookie, token, cookieKept(awaitsCode ? codeMinutes * 60 : sessionHours * 3600));
    if (awaitsCode) return isForm ? page({ asks: 'code' }) : json({ name, role, awaitsCode });
    const known = await rememberBrowser(signedIn.value.person, cookies.get(knownCookie)?.value);
    cookies.set(knownCookie, known, cookieKept(deviceDays * 86_400));
    return isForm ? redirect(next, 303) : json({ name, role, awaitsCode });
  };
