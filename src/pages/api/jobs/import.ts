import type { APIRoute } from 'astro';
import { importJob } from '../../../services/jobs';
import { jobFileFrom, personOf, problemResponse, respond } from '../../_http';

export const POST: APIRoute = async (context) => {
  const job = await jobFileFrom(context.request);
  return job.ok ? respond(await importJob(job.value, personOf(context))) : problemResponse(job.problem);
};
