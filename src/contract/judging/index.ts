import { assess, assessBriefly, type Experience } from '../../core/judgement/diagnosis';
import type { Job } from '../../core/job';
import { sheetOf } from '../../core/visit/sheet';
import { claimsOf } from '../../core/records/shop-figures/claims';

/** What is judged away from the event loop: of a job as it is judged, its verdict, its assessment, its sheet, or what came of it. */
const kinds = {
  /** Without the evidence of its findings, which takes longest. */
  verdict: assessBriefly,
  assessment: assess,
  sheet: sheetOf,
  claims: claimsOf,
};

export interface JudgeTask {
  what: keyof typeof kinds;
  job: Job;
  experience?: Experience | undefined;
}

export type Judged<What extends keyof typeof kinds> = ReturnType<(typeof kinds)[What]>;

export const judge = ({ what, job, experience }: JudgeTask) => kinds[what](job, experience);
