import { z } from 'zod';
import type { ProblemCode } from '../core/result';
import type { DevicesAtHand } from '../core/visit/view';
import { isText } from './document';

/** What one use case takes and answers. */
export interface Contract<Body extends z.ZodType = z.ZodType, Answer extends z.ZodType = z.ZodType> {
  /** One line for the published description. */
  summary: string;
  body?: Body;
  /** Parameters of the address, behind the question mark. */
  query?: z.ZodObject;
  answer: Answer;
  /** What can go wrong beside what any request can meet. */
  problems: readonly ProblemCode[];
  /** Bytes a body may have, where it may have more than usual. */
  mostBytes?: number;
  /** Needs no session. */
  open?: true;
}

/** Text in the address of a request. */
export const asked = (most: number) =>
  z.string().max(most).refine(isText, 'holds a character that no text has');

/** Made by the client once per thing done: a repeat with the same key changes nothing. */
export const key = z.uuid();

/** Problems of use cases that share what they work on. */
export const ofJob = ['unknown-job'] as const;
export const ofOpenJob = [...ofJob, 'handed-over', 'cancelled', 'key-in-use', 'not-allowed'] as const;
export const ofLead = [
  'no-receiver',
  'no-lead',
  'lead-unreachable',
  'other-car',
  'car-silent',
  'car-refused',
  'car-unclear',
  'device-unreachable',
  'device-refused',
  'device-silent',
  'device-unclear',
] as const;
export const ofBay = ['no-practice', ...ofLead] as const;

/** What can be done to a car here. */
export const devicesAtHandSchema = z.object({
  tool: z.boolean(),
  lead: z.boolean(),
  ownTool: z.boolean(),
  ownLead: z.boolean(),
  takesThresholds: z.boolean(),
  practice: z.boolean(),
}) satisfies z.ZodType<DevicesAtHand>;
