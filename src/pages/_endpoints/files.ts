import { AsyncLocalStorage } from 'node:async_hooks';
import { contracts } from '../../contract';
import { openApi } from '../../contract/openapi';
import { plateOf } from '../../core/job/header';
import { toCsv, exportVehicle, jobLines, tableNamed } from '../../services/office';
import { exportJob, revisionOf } from '../../services/jobs';
import { log, traceOf } from '../../services/log';
import { photoOf } from '../../services/sensor-services';
import { sheetPdf } from '../../services/sheet-pdf';
import { watchJobs } from '../../services/watch';
import { isUuid, json, parseQuery, personOf, problemResponse, respond, tokenOf } from '../_http';
import { askedLabels } from '../_labels';
import type { Answers } from '.';
import { labelsToPrint } from '../../services/labels';
import { labelsPdf } from '../../services/labels-pdf';

/** What is sent as it is: files, pictures, news. */

const sent = (content: BodyInit, type: string, name?: string): Response =>
  new Response(content, {
    headers: {
      'content-type': type,
      ...(name !== undefined && { 'content-disposition': `attachment; filename="${name}"` }),
    },
  });
const fileName = (text: string): string => text.replace(/[^A-Za-z0-9-]/g, '-');
const pdf = (bytes: Uint8Array): Response => sent(bytes as Uint8Array<ArrayBuffer>, 'application/pdf');

const heartbeatMs = 20_000;

export const fileAnswers = {
  openApi: () => json(openApi()),
  sheetPdf: async (context, id) => {
    const made = await sheetPdf(id, personOf(context).units);
    return made.ok ? pdf(made.value) : problemResponse(made.problem);
  },
  labelsPdf: async ({ url }) => {
    const { codes, stock, used } = askedLabels(url);
    return pdf(await labelsPdf(await labelsToPrint(codes), stock, used));
  },
  jobFile: async ({ url }, id) => {
    const job = await exportJob(id, url.searchParams.has('photos'));
    if (!job.ok) return problemResponse(job.problem);
    const name = fileName(plateOf(job.value) || id);
    return sent(JSON.stringify(job.value), 'application/json; charset=utf-8', `${name}.job.json`);
  },
  /** All of one vehicle, to be handed to its owner or the next shop. */
  vehicleFile: async (_context, id) => {
    const file = await exportVehicle(id);
    if (!file.ok) return problemResponse(file.problem);
    const name = fileName(file.value.vehicle.plate ?? id);
    return sent(JSON.stringify(file.value), 'application/json; charset=utf-8', `${name}.vehicle.json`);
  },
  /** A list of the shop, as the screen shows it. */
  table: async (context, name) => {
    const asked = Object.fromEntries(context.url.searchParams);
    const found = await tableNamed(name, asked, personOf(context));
    if (!found.ok) return problemResponse(found.problem);
    return sent(toCsv(found.value), 'text/csv; charset=utf-8; header=present', `${found.value.name}.csv`);
  },
  /** The picture of a sensor's service. It never changes, so a browser that saw it shows it without a connection too. */
  photo: async (_context, id) => {
    const picture = isUuid(id) ? await photoOf(id) : undefined;
    return picture ? sent(Uint8Array.from(picture), 'image/jpeg') : new Response(null, { status: 404 });
  },
  /** Job files, one a line, narrowed as the list of jobs is; sent as they are read. */
  jobLines: ({ url }) => {
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
    return sent(body, 'application/x-ndjson; charset=utf-8', 'jobs.jsonl');
  },
  /** Server-sent events: one when the job changed, one at each (re)connection, so that nothing is missed. */
  jobEvents: async (context, id) => {
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
      headers: { 'content-type': 'text/event-stream', 'x-accel-buffering': 'no' },
    });
  },
} satisfies Record<string, Answers>;
