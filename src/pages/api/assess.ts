import type { APIRoute } from 'astro';
import { assess } from '../../core/diagnosis';
import { parseJob } from '../../core/job/schema';
import { bodyText, json, parseJson, problemResponse } from '../_http';

export const POST: APIRoute = async ({ request }) => {
  const text = await bodyText(request);
  if (!text.ok) return problemResponse(text.problem);
  const document = parseJson(text.value);
  const job = document.ok ? parseJob(document.value) : parseJob(undefined);
  if (job.ok) return json(assess(job.value));
  const issues = document.ok ? job.problem.issues : [{ path: '', message: 'not JSON' }];
  return problemResponse({ ...job.problem, issues });
};
