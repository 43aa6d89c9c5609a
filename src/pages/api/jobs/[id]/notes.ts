import { z } from 'zod';
import { addNote } from '../../../../services/jobs';
import { key, postToJob } from '../../../_http';

const note = z.object({
  key,
  text: z.string().trim().min(1).max(500),
  /** A path of this app, never an address elsewhere. */
  link: z
    .string()
    .max(1000)
    .regex(/^\/bench(\?|$)/),
});

export const POST = postToJob(note, (id, body, who) => addNote(id, body, who));
