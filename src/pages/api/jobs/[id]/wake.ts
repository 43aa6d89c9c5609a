import { z } from 'zod';
import { walkingOrder } from '../../../../core/wheel';
import { wake } from '../../../../services/readings';
import { key, postToJob } from '../../../_http';

const triggers = ['pulsed', 'continuous', 'magnet', 'deflation'] as const;

export const POST = postToJob(
  z.object({ key, wheel: z.enum(walkingOrder), trigger: z.enum(triggers) }),
  wake,
);
