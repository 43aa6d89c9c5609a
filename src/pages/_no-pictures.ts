import type { APIRoute } from 'astro';

/** In place of the framework's endpoint that scales pictures. */
export const GET: APIRoute = () => new Response('There is nothing here.\n', { status: 404 });
