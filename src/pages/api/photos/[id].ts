import type { APIRoute } from 'astro';
import { photoOf } from '../../../services/sensor-services';
import { isUuid } from '../../_http';

/** The picture of a sensor's service. It never changes, so a browser that saw it shows it without a connection too. */
export const GET: APIRoute = async ({ params: { id = '' } }) => {
  const picture = isUuid(id) ? await photoOf(id) : undefined;
  if (!picture) return new Response(null, { status: 404 });
  return new Response(Uint8Array.from(picture), {
    headers: {
      'content-type': 'image/jpeg',
      'cache-control': 'private, max-age=31536000, immutable',
      'x-content-type-options': 'nosniff',
    },
  });
};
