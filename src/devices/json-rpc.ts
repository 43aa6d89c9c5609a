import { connect } from 'node:net';
import { createMessageConnection, SocketMessageReader, SocketMessageWriter } from 'vscode-jsonrpc/node';
import { failure, success, type Result } from '../core/result';

const connectMs = 2000;
const answerMs = 8000;

/**
 * One JSON-RPC 2.0 call over TCP, on a connection of its own. `who` names the device in an error.
 * Problems: `device-unreachable`, `device-refused`, `device-silent`.
 */
export function callDevice(
  address: Address,
  who: string,
  method: string,
  parameters: object,
): Promise<Result<unknown>> {
  return new Promise((resolve) => {
    const socket = connect({ host: address.host, port: address.port });
    const silent = failure('device-silent', `${who} did not answer in time. Try again.`);
    const unreachable = failure(
      'device-unreachable',
      `${who} cannot be reached at ${address.host}:${address.port}. Switch it on, then try again.`,
    );
    const finish = (result: Result<unknown>) => {
      clearTimeout(timer);
      socket.destroy();
      resolve(result);
    };
    let timer = setTimeout(() => finish(unreachable), connectMs);
    socket.once('error', () => finish(unreachable));
    socket.once('connect', () => {
      clearTimeout(timer);
      timer = setTimeout(() => finish(silent), answerMs);
      const connection = createMessageConnection(
        new SocketMessageReader(socket),
        new SocketMessageWriter(socket),
      );
      connection.onError(() => finish(silent));
      connection.onClose(() => finish(silent));
      connection.listen();
      connection.sendRequest(method, parameters).then(
        (result) => finish(success(result)),
        (error: unknown) =>
          finish(failure('device-refused', `${who}: ${error instanceof Error ? error.message : 'refused'}`)),
      );
    });
  });
}

export interface Address {
  host: string;
  port: number;
}

/** Reads "host:port". */
export function parseAddress(text: string): Address | undefined {
  const match = /^(?:tcp:\/\/)?([^:/]+):(\d{1,5})$/.exec(text.trim());
  return match?.[1] && match[2] ? { host: match[1], port: Number(match[2]) } : undefined;
}
