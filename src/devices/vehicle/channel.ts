import { connect, type Socket } from 'node:net';
import type { Frame } from '../../core/car/can/frame';
import { commands, decodeFrame, encodeFrame } from '../../core/car/can/slcan';
import { failure, success, type Result } from '../../core/result';

/** A CAN channel behind a network serial port that speaks the slcan ASCII form. */
export interface CanChannel {
  send: (frame: Frame) => void;
  /** Frames as they come; returns how to stop listening. */
  listen: (onFrame: (frame: Frame) => void) => () => void;
  isOpen: () => boolean;
  close: () => void;
}

const connectMs = 2000;
/** Longer than any frame: a line beyond this is noise and thrown away. */
const longestLine = 64;

/** Problem: `lead-unreachable`. */
export function openChannel(host: string, port: number): Promise<Result<CanChannel>> {
  return new Promise((resolve) => {
    const socket = connect({ host, port, timeout: connectMs });
    const unreachable = () => {
      socket.destroy();
      resolve(
        failure(
          'lead-unreachable',
          `No lead answers at ${host}:${port}. Check that it is plugged in and on the network.`,
        ),
      );
    };
    socket.once('error', unreachable);
    socket.once('timeout', unreachable);
    socket.once('connect', () => {
      socket.setTimeout(0);
      socket.off('error', unreachable);
      socket.on('error', () => socket.destroy());
      resolve(success(channelOn(socket)));
    });
  });
}

function channelOn(socket: Socket): CanChannel {
  const listeners = new Set<(frame: Frame) => void>();
  let buffer = '';
  socket.setEncoding('latin1');
  socket.on('data', (text: string) => {
    const lines = (buffer + text).split('\r');
    buffer = (lines.pop() ?? '').slice(-longestLine);
    for (const line of lines) {
      const frame = decodeFrame(line.replaceAll('\x07', ''));
      if (frame) for (const listener of [...listeners]) listener(frame);
    }
  });
  socket.write(commands.bitrate500k + commands.open);
  return {
    send: (frame) => void socket.write(encodeFrame(frame)),
    listen: (onFrame) => {
      listeners.add(onFrame);
      return () => listeners.delete(onFrame);
    },
    isOpen: () => !socket.destroyed && socket.writable,
    close: () => {
      if (!socket.destroyed) socket.end(commands.close);
    },
  };
}
