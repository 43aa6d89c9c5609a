import type { Assessment } from '../assessment';
import type { Job } from '../job';
import type { Experience } from './learning';

/** What a screen has a worker judge. */
export interface AssessRequest {
  turn: number;
  job: Job;
  experience?: Experience | undefined;
}

/** What comes back, twice: first the verdict, then the verdict with its evidence weighed. */
export interface AssessNews {
  turn: number;
  assessment: Assessment;
  weighed: boolean;
}
