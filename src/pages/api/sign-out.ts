import type { APIRoute } from 'astro';
import { signOut } from '../../services/people';
import { sessionCookie } from '../_http';

export const POST: APIRoute = async ({ cookies, redirect }) => {
  const token = cookies.get(sessionCookie)?.value;
  if (token) await signOut(token);
  cookies.delete(sessionCookie, { path: '/' });
  return redirect('/sign-in', 303);
};
