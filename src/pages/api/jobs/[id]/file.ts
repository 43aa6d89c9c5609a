import { plateOf } from '../../../../core/visit/notes';
import { exportJob } from '../../../../services/jobs';
import { getOfJob, json, problemResponse } from '../../../_http';

export const GET = getOfJob(async (id) => {
  const job = await exportJob(id);
  if (!job.ok) return problemResponse(job.problem);
  const name = (plateOf(job.value) || id).replace(/[^A-Za-z0-9-]/g, '-');
  return json(job.value, 200, { 'content-disposition': `attachment; filename="${name}.job.json"` });
});
