import { Counter, Gauge, Histogram, register } from 'prom-client';

/** What the use cases count and time, by the names monitoring reads them under. Nothing in them names a person or a car. */
const names = {
  judgement: 'hacienda_judgement_seconds',
  streams: 'hacienda_streams',
  news: 'hacienda_news_total',
};
// The register is one for the whole process: where this is loaded anew, it counts anew.
for (const name of Object.values(names)) register.removeSingleMetric(name);

export const judgementSeconds = new Histogram({
  name: names.judgement,
  help: 'How long judgements took, waiting for a thread included, by what was judged',
  labelNames: ['what'] as const,
  buckets: [0.005, 0.01, 0.025, 0.05, 0.1, 0.25, 0.5, 1, 2.5],
});
export const streamsOpen = new Gauge({ name: names.streams, help: 'Screens that listen for news' });
export const newsTold = new Counter({ name: names.news, help: 'News of changed jobs told to screens' });
