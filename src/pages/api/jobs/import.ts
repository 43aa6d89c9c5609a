import type { APIRoute } from 'astro';
import { parseJob } from '../../../core/job/schema';
import { importJob } from '../../../services/jobs';
import { bodyText, parseJson, personOf, problemResponse, respond } from '../../_http';

export const POST: APIRoute = async (context) => {
  const text = await bodyText(context.request);
  if (!text.ok) return problemResponse(text.problem);
  const document = parseJson(text.value);
  if (!document.ok) return problemResponse(document.problem);
  const job = parseJob(document.value);
  return job.ok ? respond(await importJob(job.value, personOf(context))) : problemResponse(job.problem);
};
