import type { APIRoute } from 'astro';
import { sessionCookie } from '../../middleware';
import { signOut } from '../../services/people';

export const POST: APIRoute = async ({ cookies, redirect }) => {
  const token = cookies.get(sessionCookie)?.value;
  if (token) await signOut(token);
  cookies.delete(sessionCookie, { path: '/' });
  return redirect('/sign-in', 303);
};
