import type { APIRoute } from 'astro';
import { healthy } from '../../services/health';
import { json } from '../_http';

export const GET: APIRoute = async () => ((await healthy()) ? json({ ok: true }) : json({ ok: false }, 503));
