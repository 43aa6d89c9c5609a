import type { APIRoute } from 'astro';
import { unknownJob } from '../../../../contract/refusals';
import { plateOf } from '../../../../core/visit/notes';
import { exportJob } from '../../../../services/jobs';
import { isUuid, json, problemResponse } from '../../../_http';

export const GET: APIRoute = async ({ params: { id = '' }, url }) => {
  const job = isUuid(id) ? await exportJob(id, url.searchParams.has('photos')) : unknownJob();
  if (!job.ok) return problemResponse(job.problem);
  const name = (plateOf(job.value) || id).replace(/[^A-Za-z0-9-]/g, '-');
  return json(job.value, 200, { 'content-disposition': `attachment; filename="${name}.job.json"` });
};
