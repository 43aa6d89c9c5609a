import type { APIRoute } from 'astro';
import { yard } from '../../services/jobs';
import { json } from '../_http';

export const GET: APIRoute = async () => json(await yard());
