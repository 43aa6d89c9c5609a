import { z } from 'zod';
import { replySchema } from '../../core/job/schema';
import { failure, success } from '../../core/result';
import { callDevice, type Address } from '../json-rpc';
import type { ActivationTool } from './port';

const answerSchema = z.object({ replies: z.array(replySchema) });

/** A tool on the network that speaks JSON-RPC: method `wake`, answer `{ replies }`. */
export function jsonRpcTool(address: Address): ActivationTool {
  return {
    wake: async (request) => {
      const answer = await callDevice(address, 'The activation tool', 'wake', request);
      if (!answer.ok) return answer;
      const parsed = answerSchema.safeParse(answer.value);
      return parsed.success
        ? success(parsed.data.replies)
        : failure(
            'device-unclear',
            'The activation tool answered something that is not a reading. Wake it again.',
          );
    },
  };
}
