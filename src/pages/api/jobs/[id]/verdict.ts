import { success } from '../../../../core/outcome';
import { verdictOf, viewJob } from '../../../../services/jobs';
import { getOfJob, respond } from '../../../_http';

/** What follows from the job, what proves it, and the next move. */
export const GET = getOfJob(async (id) => {
  const view = await viewJob(id);
  return respond(view.ok ? success(await verdictOf(view.value)) : view);
});
