import type { Assessment } from '../core/judgement/assessment';
import { assess, assessBriefly, type AssessNews, type AssessRequest } from '../core/judgement/diagnosis';
import { reasonsFor } from '../core/judgement/diagnosis/explanation/reasons';

/** Judges jobs away from the screen: the same code as on the server. */

/** The request that came last: a newer one makes the evidence of an older one needless. */
let latest = 0;

self.addEventListener('message', ({ data }: MessageEvent<AssessRequest>) => {
  const { turn, job, experience, units } = data;
  const tell = (assessment: Assessment, weighed: boolean) =>
    self.postMessage({
      turn,
      assessment,
      reasons: reasonsFor(job, assessment, units),
      weighed,
    } satisfies AssessNews);
  latest = turn;
  tell(assessBriefly(job, experience), false);
  // A newer reading may be waiting already: it is heard first.
  setTimeout(() => {
    if (turn === latest) tell(assess(job, experience), true);
  });
});
