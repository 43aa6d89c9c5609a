import { z } from 'zod';
import { readCar } from '../../../../services/car';
import { key, postToJob } from '../../../_http';

export const POST = postToJob(z.object({ key }), (id, body, who) => readCar(id, body.key, who));
