import type { APIRoute } from 'astro';
import { health } from '../../services/health';
import { json } from '../_http';

export const GET: APIRoute = async () => {
  const now = await health();
  return json(now, now.ok ? 200 : 503);
};
