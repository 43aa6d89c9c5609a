import { success } from '../../../../core/result';
import { verdictOf, viewJob } from '../../../../services/jobs';
import { serve } from '../../../_http';

/** What follows from the job, what proves it, and the next move. */
export const GET = serve('verdict', async ({ id }) => {
  const view = await viewJob(id);
  return view.ok ? success(await verdictOf(view.value)) : view;
});
