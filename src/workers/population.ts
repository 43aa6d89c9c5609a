import { population, type PopulationNews, type PopulationRequest } from '../core/simulate';

/** Runs a simulated population away from the screen. Whoever started it stops it by ending the worker. */

/** News no more often than this, ms: a screen shows no more. */
const newsEveryMs = 250;

self.addEventListener('message', ({ data }: MessageEvent<PopulationRequest>) => {
  const tell = (news: PopulationNews) => self.postMessage(news);
  const run = population(data.cars, data.seed);
  let told = performance.now();
  for (let step = run.next(); ; step = run.next()) {
    if (step.done) return tell({ kind: 'done', report: step.value });
    if (performance.now() - told < newsEveryMs) continue;
    told = performance.now();
    tell({ kind: 'progress', done: step.value.done, report: step.value.report() });
  }
});
