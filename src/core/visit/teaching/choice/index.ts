/**
 * Whether a car must be taught after what was done, and which of the procedures on file to take. In go the job, the
 * procedures and what is here; out come the need with its reason, and the ways, the best first.
 */
export { expectedIds } from './expected';
export { needOf, type Need, type NeedAction, type NeedReason } from './need';
export { canBeDone, meansOf, waysFor, type Means, type Way } from './ways';
