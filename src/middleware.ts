import { defineMiddleware } from 'astro:middleware';
import { foreignOrigin, notSignedIn, serverError, somebodyElse } from './contract/refusals';
import { nowHeader, personHeader } from './contract/routes';
import type { Result } from './core/result';
import { respond, sessionCookie } from './pages/_http';
import { personOfToken } from './services/people';

/** Reached without a session: signing in, health, and the core's open door. */
const open = new Set([
  '/sign-in',
  '/api/sign-in',
  '/api/sign-in-pin',
  '/api/health',
  '/api/assess',
  '/api/schema/job',
  '/api/schema/assessment',
  '/api/schema/profile',
  '/api/schema/procedure',
  '/api/openapi.json',
]);
/** Changes nothing and reads no cookie, so it may be called from anywhere. */
const originFree = new Set(['/api/assess']);

const securityHeaders = {
  'x-content-type-options': 'nosniff',
  'x-frame-options': 'DENY',
  'referrer-policy': 'same-origin',
  'cross-origin-opener-policy': 'same-origin',
  'permissions-policy': 'camera=(), microphone=(), geolocation=()',
};

/** What the framework's own policy, made of hashes, cannot say: a second policy that holds beside it. */
const framePolicy = "frame-ancestors 'none'; object-src 'none'; base-uri 'none'; form-action 'self'";

export const onRequest = defineMiddleware(async (context, next) => {
  const { pathname } = context.url;
  const isApi = pathname.startsWith('/api/');
  const path = pathname.replace(/\/$/, '') || '/';
  const refuse = (refusal: Result<never>) => secured(respond(refusal));

  if (!isSafe(context.request.method) && !originFree.has(path) && !sameOrigin(context.request)) {
    return refuse(foreignOrigin());
  }
  try {
    const token = context.cookies.get(sessionCookie)?.value;
    context.locals.person = token ? await personOfToken(token) : undefined;
    const theme = context.cookies.get('theme')?.value;
    context.locals.theme = theme === 'light' || theme === 'dark' ? theme : undefined;
    if (!context.locals.person && !open.has(path)) {
      if (isApi) return refuse(notSignedIn());
      return secured(context.redirect(`/sign-in?next=${encodeURIComponent(pathname)}`, 303));
    }
    const enteredBy = context.request.headers.get(personHeader);
    if (enteredBy !== null && enteredBy !== context.locals.person?.id) return refuse(somebodyElse());
    return secured(await next());
  } catch (error) {
    console.error(error);
    if (!isApi) throw error;
    return refuse(serverError());
  }
});

const isSafe = (method: string) => method === 'GET' || method === 'HEAD';

/** A browser names the origin of every change; it must be the host that was asked. */
function sameOrigin(request: Request): boolean {
  const origin = request.headers.get('origin');
  const host = request.headers.get('host');
  return origin !== null && host !== null && URL.canParse(origin) && new URL(origin).host === host;
}

function secured(response: Response, status = response.status): Response {
  const headers = new Headers(response.headers);
  for (const [name, value] of Object.entries(securityHeaders)) headers.set(name, value);
  headers.set(nowHeader, String(Date.now()));
  headers.append('content-security-policy', framePolicy);
  return new Response(response.body, { status, headers });
}
