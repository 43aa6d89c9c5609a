import { z } from 'zod';
import type { ProblemCode } from '../core/result';
import type { Right } from '../core/visit/person';
import type { DevicesAtHand } from './views';
import { isText } from './document';
import type { Named } from './missing';

/** Where something answers, who may ask, and what is kept of it: all there is to know of a route but what it does. */
export interface Route {
  at: readonly ['GET' | 'POST' | 'PATCH', string];
  /** Who may: anybody, whoever is signed in, or whoever has this right. Some use cases ask more of some of what is sent. */
  right: Right | 'signed-in' | 'anybody';
  /** What is kept of who looked: of whose records. What is changed is kept with what was changed. */
  notes: Look | 'nothing';
  /** What `{id}` in the address names. */
  of?: Named;
  /** Programs may ask, which name no origin, and pages of other sites that the operator named. It reads no cookie. */
  forPrograms?: true;
  /** Done in the own shop, whichever of the chain is looked into. */
  inOwnShop?: true;
}

/** A look at somebody's records, and at which: of the job or the vehicle that is named, or of what was asked for in words. */
export interface Look {
  what: string;
  of?: 'job' | 'vehicle';
}

/** What one use case takes and answers. */
export interface Contract<
  Body extends z.ZodType = z.ZodType,
  Answer extends z.ZodType = z.ZodType,
> extends Route {
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
  /** It waits for a device, or reads a whole file: it takes as long as that takes. */
  slow?: true;
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
