import { AsyncLocalStorage } from 'node:async_hooks';
import type { APIRoute } from 'astro';
import { contracts } from '../../contract';
import { jobLines } from '../../services/exports';
import { log, traceOf } from '../../services/log';
import { parseQuery, problemResponse } from '../_http';

/** Job files, one a line, narrowed as the list of jobs is; sent as they are read. */
export const GET: APIRoute = ({ url }) => {
  const filter = parseQuery(url, contracts.jobs.query);
  if (!filter.ok) return problemResponse(filter.problem);
  const lines = jobLines(filter.value ?? {});
  const encoder = new TextEncoder();
  const body = new ReadableStream<Uint8Array>({
    // Of the shop that was looked into when it was asked for, whenever it is read.
    pull: AsyncLocalStorage.bind(async (stream: ReadableStreamDefaultController<Uint8Array>) => {
      try {
        const { done, value } = await lines.next();
        if (done) stream.close();
        else stream.enqueue(encoder.encode(value));
      } catch (error) {
        // Whoever reads must not take a part for all: the connection is cut.
        log.error(traceOf(error), 'jobs were not sent to the end');
        stream.error(error);
      }
    }),
    async cancel() {
      await lines.return(undefined);
    },
  });
  return new Response(body, {
    headers: {
      'content-type': 'application/x-ndjson; charset=utf-8',
      'content-disposition': 'attachment; filename="jobs.jsonl"',
    },
  });
};
