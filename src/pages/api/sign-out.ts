import type { APIRoute } from 'astro';
import { signOut } from '../../services/people';
import { sessionCookie } from '../_http';

/**
 * Ends the session, and has the browser forget what it kept of the shop. What was entered and not sent yet is kept on the
 * device with everything else, so that is forgotten only where the page says that nothing waits.
 */
export const POST: APIRoute = async ({ cookies, request }) => {
  const token = cookies.get(sessionCookie)?.value;
  if (token) await signOut(token);
  cookies.delete(sessionCookie, { path: '/' });
  const form = new URLSearchParams(await request.text().catch(() => ''));
  const forget = form.get('waiting') === 'none' ? '"cache", "storage"' : '"cache"';
  return new Response(null, {
    status: 303,
    headers: { location: '/sign-in', 'clear-site-data': forget },
  });
};
