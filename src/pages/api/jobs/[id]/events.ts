import type { APIRoute } from 'astro';
import { unknownJob } from '../../../../contract/refusals';
import { revisionOf } from '../../../../services/jobs';
import { watchJobs } from '../../../../services/watch';
import { isUuid, personOf, respond, tokenOf } from '../../../_http';

const heartbeatMs = 20_000;

/** Server-sent events: one when the job changed, one at each (re)connection, so that nothing is missed. */
export const GET: APIRoute = async (context) => {
  const { id = '' } = context.params;
  if (!isUuid(id)) return respond(unknownJob());
  const revision = await revisionOf(id);
  const encoder = new TextEncoder();
  let say: (text: string) => void = () => undefined;
  let end: () => void = () => undefined;
  const watching = watchJobs(personOf(context), tokenOf(context), {
    onChange: (changed) => {
      if (changed === undefined || changed === id) say('event: change\ndata: {}\n\n');
    },
    onEnd: () => end(),
  });
  if (!watching.ok) return respond(watching);
  const heartbeat = setInterval(() => say(': still here\n\n'), heartbeatMs);
  const stop = () => {
    clearInterval(heartbeat);
    watching.value();
  };
  const stream = new ReadableStream({
    start(controller) {
      say = (text) => controller.enqueue(encoder.encode(text));
      end = () => {
        stop();
        controller.close();
      };
      // Whoever has this revision already need not ask for it.
      say(`retry: 500\nevent: change\ndata: ${JSON.stringify({ revision, now: Date.now() })}\n\n`);
    },
    cancel: stop,
  });
  context.request.signal.addEventListener('abort', stop);
  return new Response(stream, {
    headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store', 'x-accel-buffering': 'no' },
  });
};
