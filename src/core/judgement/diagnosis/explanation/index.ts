/** Why. In goes a judgement; out come the weight of each observation, the sentences a technician would say, and what in the job cannot be. */
export { inconsistenciesOf } from './inconsistencies';
export { decibans, leastNamed, weigherOf } from './weight-of-evidence';
