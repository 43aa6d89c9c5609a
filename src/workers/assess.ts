import { assess, assessBriefly, type AssessNews, type AssessRequest } from '../core/diagnosis';

/** Judges jobs away from the screen: the same code as on the server. */

/** The request that came last: a newer one makes the evidence of an older one needless. */
let latest = 0;

self.addEventListener('message', ({ data: { turn, job, experience } }: MessageEvent<AssessRequest>) => {
  const tell = (news: AssessNews) => self.postMessage(news);
  latest = turn;
  tell({ turn, assessment: assessBriefly(job, experience), weighed: false });
  // A newer reading may be waiting already: it is heard first.
  setTimeout(() => {
    if (turn === latest) tell({ turn, assessment: assess(job, experience), weighed: true });
  });
});
