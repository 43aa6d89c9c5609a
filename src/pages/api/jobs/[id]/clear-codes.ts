import { z } from 'zod';
import { clearCodes } from '../../../../services/car';
import { key, postToJob } from '../../../_http';

export const POST = postToJob(z.object({ key }), (id, body, who) => clearCodes(id, body.key, who));
