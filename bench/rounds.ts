/** Timing over HTTP: rounds of requests, several abreast, told as milliseconds a request. */
const requestsPerRound = 100;
const abreast = 4;

export async function round(ask: () => Promise<Response>): Promise<number> {
  const started = performance.now();
  let left = requestsPerRound;
  const runner = async () => {
    while (left > 0) {
      left -= 1;
      await (await ask()).arrayBuffer();
    }
  };
  await Promise.all(Array.from({ length: abreast }, runner));
  return (performance.now() - started) / requestsPerRound;
}

export const median = (values: readonly number[]): number =>
  [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? Number.NaN;
