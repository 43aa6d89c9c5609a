import { z } from 'zod';
import { readBack } from '../../../../services/car';
import { key, postToJob } from '../../../_http';

/** `write` is the key of the write to read back. */
export const POST = postToJob(z.object({ write: key }), (id, body, who) => readBack(id, body.write, who));
