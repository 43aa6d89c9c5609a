import type { APIRoute } from 'astro';
import { openApi } from '../../contract/openapi';
import { json } from '../_http';

/** The published description of this API. */
export const GET: APIRoute = () => json(openApi());
