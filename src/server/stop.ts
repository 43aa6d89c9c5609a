import type { IncomingMessage, Server, ServerResponse } from 'node:http';

/** So long a request, a write to a car among them, may go on once the server was asked to stop, ms. */
const patienceMs = 9_000;

/**
 * Asked to stop, the server takes nothing new, ends the streams of news (browsers come back to whoever serves next), and
 * lets what is going on come to its end: a car that is written to is read back, or known to be unknown.
 */
export function stopsInOrder(server: Server): void {
  const going = new Set<ServerResponse>();
  let isStopping = false;
  server.on('request', (_request: IncomingMessage, response: ServerResponse) => {
    going.add(response);
    response.once('close', () => {
      going.delete(response);
      if (isStopping && going.size === 0) leave();
    });
  });
  const leave = () => process.exit(0);
  const stop = () => {
    if (isStopping) return;
    isStopping = true;
    server.close();
    setTimeout(leave, patienceMs).unref();
    for (const response of going) if (isStream(response)) response.destroy();
    server.closeIdleConnections();
    if (going.size === 0) leave();
  };
  process.on('SIGTERM', stop);
  process.on('SIGINT', stop);
}

const isStream = (response: ServerResponse): boolean =>
  String(response.getHeader('content-type') ?? '').startsWith('text/event-stream');
