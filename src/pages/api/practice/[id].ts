import { z } from 'zod';
import { walkingOrder } from '../../../core/wheel';
import { drive, letNightPass, lookAt, setAir } from '../../../services/practice';
import { getOfJob, key, postToJob, respond } from '../../_http';

export const GET = getOfJob(async (id) => respond(await lookAt(id)));

const asked = z.discriminatedUnion('do', [
  z.object({ do: z.literal('drive'), key }),
  z.object({ do: z.literal('night'), celsius: z.number().min(-60).max(60) }),
  z.object({ do: z.literal('air'), wheel: z.enum(walkingOrder), kPa: z.number().min(0).max(600) }),
]);

export const POST = postToJob<z.infer<typeof asked>>(asked, async (id, body, who) => {
  switch (body.do) {
    case 'drive':
      return drive(id, body.key, who);
    case 'night':
      return letNightPass(id, body.celsius);
    case 'air':
      return setAir(id, body.wheel, body.kPa);
  }
});
