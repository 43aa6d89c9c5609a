import { z } from 'zod';
import { walkingOrder } from '../../../core/wheel';
import { drive, lookAt, setAir } from '../../../services/practice';
import { getOfJob, key, postToJob, respond } from '../../_http';

export const GET = getOfJob(async (id) => respond(await lookAt(id)));

const asked = z.discriminatedUnion('do', [
  z.object({ do: z.literal('drive'), key }),
  z.object({ do: z.literal('air'), wheel: z.enum(walkingOrder), kPa: z.number().min(0).max(600) }),
]);

export const POST = postToJob(asked, async (id, body, who) =>
  body.do === 'drive' ? drive(id, body.key, who) : setAir(id, body.wheel, body.kPa),
);
