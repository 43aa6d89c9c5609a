import type { APIRoute } from 'astro';
import { parseJobFile } from '../../../contract/document';
import { importJob } from '../../../services/jobs';
import { bodyText, personOf, problemResponse, respond } from '../../_http';

export const POST: APIRoute = async (context) => {
  const text = await bodyText(context.request);
  if (!text.ok) return problemResponse(text.problem);
  const job = parseJobFile(text.value);
  return job.ok ? respond(await importJob(job.value, personOf(context))) : problemResponse(job.problem);
};
