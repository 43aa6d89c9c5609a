import type { APIRoute } from 'astro';
import { asJudged } from '../../core/gauge';
import { refuseHurry } from '../../services/hurry';
import { assessFile } from '../../services/judging';
import { jobFileFrom, problemResponse, respond } from '../_http';

/** Open to anybody, so it is limited per address; judged in a thread, so that others are answered meanwhile. */
export const POST: APIRoute = async ({ request, clientAddress }) => {
  const hurry = await refuseHurry(clientAddress);
  if (hurry && !hurry.ok) return problemResponse(hurry.problem);
  const job = await jobFileFrom(request);
  return job.ok ? respond(await assessFile(asJudged(job.value, []))) : problemResponse(job.problem);
};
