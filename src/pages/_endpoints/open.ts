import { z } from 'zod';
import { contracts } from '../../contract';
import { isText, parseJobFile } from '../../contract/document';
import { jsonOnly } from '../../contract/refusals';
import { assessmentSchema } from '../../core/judgement/assessment/schema';
import { jobSchema } from '../../core/job/schema';
import { procedureSchema } from '../../core/relearn/procedure/schema';
import { health } from '../../services/health';
import { refuseHurry } from '../../services/hurry';
import { importJob } from '../../services/jobs';
import { assessFile } from '../../services/judging';
import { signIn, signOut } from '../../services/people';
import { signInWithPin } from '../../services/pins';
import { signInWithCode } from '../../services/second-factor';
import {
  agentOf,
  bodyText,
  deviceCookie,
  json,
  knownCookie,
  personOf,
  problemResponse,
  respond,
  sessionCookie,
} from '../_http';
import { signingIn } from '../_sign-in';
import type { Answers } from '.';

/** The doors: signing in and out, and what strangers and other programs are answered. */

/** A page of another site may send plain text without asking anybody; JSON it may not. Programs name the type as they like. */
const isByPage = ({ headers }: Request): boolean => headers.has('origin') || headers.has('sec-fetch-site');
const isJson = ({ headers }: Request): boolean =>
  /^application\/json\b/i.test(headers.get('content-type') ?? '');

const schemaOf =
  (schema: z.ZodType): Answers =>
  () =>
    json(z.toJSONSchema(schema, { io: 'input' }));

const name = z.string().trim().min(1).max(80).refine(isText);
const secret = (most: number) => z.string().min(1).max(most).refine(isText);

export const openAnswers = {
  /** Open to anybody, so it is limited per address; judged in a thread, so that others are answered meanwhile. */
  assess: async ({ request, clientAddress }) => {
    if (isByPage(request) && !isJson(request)) return respond(jsonOnly());
    const hurry = await refuseHurry(clientAddress);
    if (hurry && !hurry.ok) return problemResponse(hurry.problem);
    const text = await bodyText(request);
    return text.ok ? respond(await assessFile(text.value)) : problemResponse(text.problem);
  },
  health: async () => {
    const now = await health();
    return json(now, now.ok ? 200 : 503);
  },
  jobSchema: schemaOf(jobSchema),
  assessmentSchema: schemaOf(assessmentSchema),
  profileSchema: schemaOf(contracts.saveProfiles.body),
  procedureSchema: schemaOf(procedureSchema),
  signIn: signingIn(
    z.object({ name, passphrase: secret(128) }),
    'wrong-name-or-passphrase',
    (asked, { clientAddress, cookies, request }) =>
      signIn(asked.name, asked.passphrase, {
        address: clientAddress,
        agent: agentOf(request),
        known: cookies.get(knownCookie)?.value,
      }),
  ),
  signInWithPin: signingIn(z.object({ name, pin: secret(12) }), 'wrong-pin', (asked, { cookies, request }) =>
    signInWithPin(asked, cookies.get(deviceCookie)?.value, agentOf(request)),
  ),
  signInWithCode: signingIn(
    z.object({ code: z.string().trim().min(1).max(40).refine(isText) }),
    'wrong-code',
    ({ code }, { cookies, request }) =>
      signInWithCode(cookies.get(sessionCookie)?.value, code, agentOf(request)),
  ),
  /**
   * Ends the session, and has the browser forget what it kept of the shop. What was entered and not sent yet is kept on
   * the device with everything else, so that is forgotten only where the page says that nothing waits.
   */
  signOut: async ({ cookies, request }) => {
    const token = cookies.get(sessionCookie)?.value;
    if (token) await signOut(token);
    cookies.delete(sessionCookie, { path: '/' });
    const form = new URLSearchParams(await request.text().catch(() => ''));
    const forget = form.get('waiting') === 'none' ? '"cache", "storage"' : '"cache"';
    return new Response(null, { status: 303, headers: { location: '/sign-in', 'clear-site-data': forget } });
  },
  importJob: async (context) => {
    const text = await bodyText(context.request);
    if (!text.ok) return problemResponse(text.problem);
    const job = parseJobFile(text.value);
    return job.ok ? respond(await importJob(job.value, personOf(context))) : problemResponse(job.problem);
  },
} satisfies Record<string, Answers>;
