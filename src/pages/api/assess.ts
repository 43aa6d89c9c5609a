import type { APIRoute } from 'astro';
import { asJudged } from '../../core/gauge';
import { parseJob } from '../../core/job/schema';
import { assessFile } from '../../services/judging';
import { refuseHurry } from '../../services/hurry';
import { bodyText, parseJson, problemResponse, respond } from '../_http';

/** Open to anybody, so it is limited per address; judged in a thread, so that others are answered meanwhile. */
export const POST: APIRoute = async ({ request, clientAddress }) => {
  const hurry = await refuseHurry(clientAddress);
  if (hurry && !hurry.ok) return problemResponse(hurry.problem);
  const text = await bodyText(request);
  if (!text.ok) return problemResponse(text.problem);
  const document = parseJson(text.value);
  const job = document.ok ? parseJob(document.value) : parseJob(undefined);
  if (job.ok) return respond(await assessFile(asJudged(job.value, [])));
  const issues = document.ok ? job.problem.issues : [{ path: '', message: 'not JSON' }];
  return problemResponse({ ...job.problem, issues });
};
