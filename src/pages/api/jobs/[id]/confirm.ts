import { z } from 'zod';
import { confirmedSchema } from '../../../../core/confirmed/schema';
import { confirm } from '../../../../services/jobs';
import { key, postToJob } from '../../../_http';

export const POST = postToJob(z.object({ key, parts: z.array(confirmedSchema).max(40) }), confirm);
