import { z } from 'zod';
import { failure, success } from '../../core/result';
import { callDevice, type Address } from '../json-rpc';
import type { Programmer } from './port';

const inCradleSchema = z.object({
  serial: z.string().optional(),
  part: z.string().optional(),
  formats: z.array(z.object({ family: z.string(), frequencyMHz: z.number() })),
  id: z.string().nullable(),
  family: z.string().nullable(),
  frequencyMHz: z.number().nullable(),
  battery: z.enum(['ok', 'low']).optional(),
  writesLeft: z.int().optional(),
});
const answerSchema = z.object({ sensors: z.array(inCradleSchema) });

/** A cradle beside the activation tool, on the same protocol: methods `cradle/read` and `cradle/program`. */
export function jsonRpcProgrammer(address: Address): Programmer {
  const ask = (method: string, parameters: object) => callDevice(address, 'The cradle', method, parameters);
  return {
    read: async () => {
      const answer = await ask('cradle/read', {});
      if (!answer.ok) return answer;
      const parsed = answerSchema.safeParse(answer.value);
      return parsed.success
        ? success(parsed.data.sensors)
        : failure('device-unclear', 'The cradle answered something that is not a sensor. Read it again.');
    },
    program: async (asked) => {
      const answer = await ask('cradle/program', asked);
      if (answer.ok) return { answer: 'yes' };
      const { code, message } = answer.problem;
      // Where it was not even reached, nothing was sent: that is a plain "no".
      return code === 'device-silent'
        ? { answer: 'lost', reason: message }
        : { answer: 'no', reason: message };
    },
  };
}
