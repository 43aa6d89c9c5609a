import getPort, { portNumbers } from 'get-port';

/** Under what systems give to outgoing connections (from 32768 on Linux), which else may take it before it is listened on. */
const first = 15_000;
const each = 100;
const blocks = 170;

/** A port of this machine's own address that nobody listens on: processes look in blocks apart, so that no two find the same. */
export const freePort = (): Promise<number> => {
  const from = first + (process.pid % blocks) * each;
  return getPort({ host: '127.0.0.1', port: portNumbers(from, from + each - 1) });
};
