import { setting } from './settings';
import { defineMiddleware } from 'astro:middleware';
import {
  foreignOrigin,
  looksOnly,
  noEndpoint,
  notSignedIn,
  readsOnly,
  recordsAway,
  serverError,
  somebodyElse,
  unreadableRecord,
} from './contract/refusals';
import { nowHeader, personHeader } from './contract/headers';
import { routeAt } from './contract/routes';
import type { Result } from './core/result';
import { isHttps, lookingCookie, respond, sessionCookie } from './pages/_http';
import { log, traceOf } from './services/log';
import { readerOf, lookingInto, looksIntoOthers, refuseLooking, keepTelling } from './services/office';
import { keepForgetting } from './services/forgetting';
import { noteLook } from './services/looks';
import { yard } from './services/jobs/yard';
import { personOfToken, refuseUnless, type Person } from './services/people';
import { isPassing, Unreadable } from './services/trouble';

const securityHeaders = {
  'x-content-type-options': 'nosniff',
  'x-frame-options': 'DENY',
  'referrer-policy': 'same-origin',
  'cross-origin-opener-policy': 'same-origin',
  'cross-origin-resource-policy': 'same-origin',
  'permissions-policy': 'camera=(self), microphone=(), geolocation=()',
};

/** What holds beside the framework's own policy for pages, which is made of hashes, and alone for all other answers. */
const policy = {
  page: "frame-ancestors 'none'; object-src 'none'; base-uri 'none'; form-action 'self'",
  answer: "default-src 'none'; frame-ancestors 'none'; base-uri 'none'",
};
const yearSeconds = 365 * 86_400;

/** A page while the records are away: it asks again by itself. */
const awayPage = (): Response =>
  plainPage(503, 'Nothing is lost, trying again', `<p>${recordsAway().problem.message}</p>`, 3);

/** A page of a job that holds a record nobody can read: it says which. Its name is made of keys, never of what was typed. */
const unreadablePage = (what: string): Response =>
  plainPage(
    422,
    'This job cannot be read',
    `<p>${unreadableRecord(what.replace(/[^\w .()-]/g, '')).problem.message}</p><p><a href="/">To the Yard</a></p>`,
  );

const plainPage = (status: number, title: string, text: string, againS?: number): Response =>
  new Response(
    `<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width">${againS === undefined ? '' : `<meta http-equiv="refresh" content="${againS}">`}<title>${title} · Hacienda</title><style>body{margin:3rem auto;max-width:34rem;padding:0 1rem;font:1.1rem/1.5 system-ui,sans-serif;color-scheme:light dark}a{color:inherit}</style></head><body><main><h1>${title}</h1>${text}</main></body></html>`,
    {
      status,
      headers: {
        'content-type': 'text/html; charset=utf-8',
        ...(againS !== undefined && { 'retry-after': String(againS) }),
      },
    },
  );

// With the server, once: what it does beside answering.
if (import.meta.env.PROD) {
  keepTelling();
  // A server that was started again has the Yard at hand, and its judging threads warm, before anybody asks.
  void yard().catch(() => undefined);
  keepForgetting();
}

export const onRequest = defineMiddleware(async (context, next) => {
  const { pathname } = context.url;
  const isApi = pathname.startsWith('/api/');
  const route = routeAt(context.request.method, pathname);
  context.locals.route = route;
  const refuse = (refusal: Result<never>) => secured(respond(refusal));

  const { request } = context;
  const forPrograms = isForPrograms(pathname);
  const guest = forPrograms ? guestOf(request) : undefined;
  const isProgram = forPrograms && request.headers.get('origin') === null;
  if (!isSafe(request.method) && !guest && !isProgram && !sameOrigin(request)) return refuse(foreignOrigin());
  if (guest)
    return welcomed(guest, request.method === 'OPTIONS' ? new Response(null) : secured(await next()));
  try {
    const reader = bearerOf(request);
    if (reader !== undefined && !(isApi && isSafe(request.method))) return refuse(readsOnly());
    const token = context.cookies.get(sessionCookie)?.value;
    context.locals.person =
      reader !== undefined ? await readerOf(reader) : token ? await personOfToken(token) : undefined;
    const theme = context.cookies.get('theme')?.value;
    context.locals.theme = theme === 'light' || theme === 'dark' ? theme : undefined;
    const { person } = context.locals;
    if (!person && route?.right !== 'anybody') {
      if (isApi) return refuse(notSignedIn());
      return secured(context.redirect(`/sign-in?next=${encodeURIComponent(pathname)}`, 303));
    }
    const enteredBy = context.request.headers.get(personHeader);
    if (enteredBy !== null && enteredBy !== person?.id) return refuse(somebodyElse());
    if (person && route && route.right !== 'signed-in' && route.right !== 'anybody') {
      const refusal = refuseUnless(person, route.right);
      if (refusal) return refuse(refusal);
    }
    const shop = await shopLookedInto(person, context.cookies.get(lookingCookie)?.value);
    if (shop !== undefined && !isSafe(request.method) && !route?.inOwnShop) return refuse(looksOnly());
    context.locals.looking = shop;
    const answer = await (shop === undefined ? next() : lookingInto(shop, next));
    if (person && route && answer.status === 200) noteLook(person, route, { url: context.url, shop });
    const isPage = answer.headers.get('content-type')?.startsWith('text/html') ?? false;
    // Programs are answered as programs, also where no endpoint is.
    return isApi && isPage && answer.status === 404 ? refuse(noEndpoint()) : secured(answer);
  } catch (error) {
    if (error instanceof Unreadable)
      return isApi ? refuse(unreadableRecord(error.what)) : secured(unreadablePage(error.what));
    if (isPassing(error)) return isApi ? refuse(recordsAway()) : secured(awayPage());
    log.error({ route: route?.address, ...traceOf(error) }, 'a request failed');
    if (!isApi) throw error;
    return refuse(serverError());
  }
});

/** The shop of the chain this browser looks into, where whoever it is may. */
async function shopLookedInto(
  person: Person | undefined,
  shop: string | undefined,
): Promise<string | undefined> {
  if (!person || !shop || !looksIntoOthers(person)) return undefined;
  return (await refuseLooking(person, shop)) ? undefined : shop;
}

/** The token of a program that reads; undefined where the request shows none. */
const bearerOf = ({ headers }: Request): string | undefined =>
  /^Bearer +(\S+)$/i.exec(headers.get('authorization') ?? '')?.[1];

const isSafe = (method: string) => method === 'GET' || method === 'HEAD';

/** A browser names the origin of every change; it must be the host that was asked. */
function sameOrigin(request: Request): boolean {
  const origin = request.headers.get('origin');
  const host = request.headers.get('host');
  return origin !== null && host !== null && URL.canParse(origin) && new URL(origin).host === host;
}

/** Another site that the operator lets ask for judgements: `HACIENDA_ASSESS_ORIGINS`, comma-separated. */
function guestOf(request: Request): string | undefined {
  const origin = request.headers.get('origin') ?? '';
  const welcome = setting('HACIENDA_ASSESS_ORIGINS') ?? [];
  return origin !== '' && welcome.includes(origin) ? origin : undefined;
}

/** A door that is open to programs, whatever the method: a page of another site asks first whether it may ask. */
const isForPrograms = (path: string): boolean => routeAt('POST', path)?.forPrograms ?? false;

function welcomed(origin: string, response: Response): Response {
  response.headers.set('access-control-allow-origin', origin);
  response.headers.set('access-control-allow-methods', 'POST');
  response.headers.set('access-control-allow-headers', 'content-type');
  response.headers.append('vary', 'origin');
  return response;
}

function secured(response: Response): Response {
  try {
    return securedAsItIs(response);
  } catch {
    // What was made as a redirect, or elsewhere, does not let its headers be changed.
    return securedAsItIs(new Response(response.body, { status: response.status, headers: response.headers }));
  }
}

function securedAsItIs(response: Response): Response {
  const { headers } = response;
  for (const [name, value] of Object.entries(securityHeaders)) headers.set(name, value);
  headers.set(nowHeader, String(Date.now()));
  const isPage = headers.get('content-type')?.startsWith('text/html') ?? false;
  headers.append('content-security-policy', isPage ? policy.page : policy.answer);
  // What is private stays in no cache between; what a device keeps, it keeps itself.
  headers.set('cache-control', 'no-store');
  if (isHttps()) headers.set('strict-transport-security', `max-age=${yearSeconds}`);
  return response;
}
