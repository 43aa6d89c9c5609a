import { assess, type Experience } from '../core/diagnosis';
import type { Job } from '../core/job';

/** Judges jobs away from the screen: the same code as on the server. */
export interface AssessRequest {
  turn: number;
  job: Job;
  experience?: Experience;
}

self.addEventListener('message', ({ data }: MessageEvent<AssessRequest>) => {
  self.postMessage({ turn: data.turn, assessment: assess(data.job, data.experience) });
});
