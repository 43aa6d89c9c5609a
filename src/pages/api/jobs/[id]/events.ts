import type { APIRoute } from 'astro';
import { unknownJob } from '../../../../contract/refusals';
import { revisionOf } from '../../../../services/jobs';
import { watchJobs } from '../../../../services/watch';
import { isUuid, respond } from '../../../_http';

const heartbeatMs = 20_000;

/** Server-sent events: one when the job changed, one at each (re)connection, so that nothing is missed. */
export const GET: APIRoute = async ({ params: { id = '' }, request }) => {
  if (!isUuid(id)) return respond(unknownJob());
  const revision = await revisionOf(id);
  let stop: () => void = () => undefined;
  const stream = new ReadableStream({
    start(controller) {
      const encoder = new TextEncoder();
      const say = (text: string) => controller.enqueue(encoder.encode(text));
      const unwatch = watchJobs((changed) => {
        if (changed === undefined || changed === id) say('event: change\ndata: {}\n\n');
      });
      const heartbeat = setInterval(() => say(': still here\n\n'), heartbeatMs);
      stop = () => {
        clearInterval(heartbeat);
        unwatch();
      };
      request.signal.addEventListener('abort', stop);
      // Whoever has this revision already need not ask for it.
      say(`retry: 500\nevent: change\ndata: ${JSON.stringify({ revision, now: Date.now() })}\n\n`);
    },
    cancel: () => stop(),
  });
  return new Response(stream, {
    headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store', 'x-accel-buffering': 'no' },
  });
};
