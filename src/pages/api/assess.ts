import type { APIRoute } from 'astro';
import { jsonOnly } from '../../contract/refusals';
import { refuseHurry } from '../../services/hurry';
import { assessFile } from '../../services/judging';
import { bodyText, problemResponse, respond } from '../_http';

/** Open to anybody, so it is limited per address; judged in a thread, so that others are answered meanwhile. */
export const POST: APIRoute = async ({ request, clientAddress }) => {
  if (isByPage(request) && !isJson(request)) return respond(jsonOnly());
  const hurry = await refuseHurry(clientAddress);
  if (hurry && !hurry.ok) return problemResponse(hurry.problem);
  const text = await bodyText(request);
  return text.ok ? respond(await assessFile(text.value)) : problemResponse(text.problem);
};

/** A page of another site may send plain text without asking anybody; JSON it may not. Programs name the type as they like. */
const isByPage = ({ headers }: Request): boolean => headers.has('origin') || headers.has('sec-fetch-site');
const isJson = ({ headers }: Request): boolean =>
  /^application\/json\b/i.test(headers.get('content-type') ?? '');
