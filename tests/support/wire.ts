import { createServer, connect, type Server } from 'node:net';
import { decodeFrame } from '../../src/core/car/can/slcan';

/** ISO 15765-2: a single frame, or the first of several, by its first four bits; the rest is transport. */
function beginsMessage(line: string): boolean {
  const [first] = decodeFrame(line.replace(/[\r\x07]/g, ''))?.data ?? [];
  return first !== undefined && first >> 4 <= 1;
}

/**
 * A lead with somebody's hand on it: passes on what goes both ways between the app and a car, and counts the messages.
 */
export class Wire {
  private constructor(
    private readonly server: Server,
    readonly port: number,
  ) {}

  /** Where the car is. */
  to = 0;
  /** Diagnostic messages so far, both ways. */
  count = 0;
  /** Called before each message is passed on, with its number. */
  onMessage: (n: number) => void = () => undefined;

  static async open(): Promise<Wire> {
    return new Promise((resolve) => {
      const server = createServer((app) => {
        const car = connect({ host: '127.0.0.1', port: wire.to });
        const pass = (text: string, on: typeof car) => {
          for (const line of text.split(/(?<=\r)/)) {
            if (beginsMessage(line)) wire.onMessage((wire.count += 1));
            on.write(line, 'latin1');
          }
        };
        for (const [from, on] of [
          [app, car],
          [car, app],
        ] as const) {
          from.setEncoding('latin1');
          from.on('data', (text: string) => pass(text, on));
          from.on('error', () => on.destroy());
          from.on('close', () => on.destroy());
        }
      });
      server.listen(0, '127.0.0.1', () => {
        const address = server.address();
        wire = new Wire(server, typeof address === 'object' && address ? address.port : 0);
        resolve(wire);
      });
      let wire: Wire;
    });
  }

  close(): void {
    this.server.close();
  }
}
