/** What follows for the shop. In goes a judgement (evidence, ledger, posterior); out come the claims with their chances, the tests worth doing next, and whether to act. */
export { type Claim, type Judgement, chanceOf, claimsFrom } from './claims';
export { decisionFrom } from './decision';
export { rounded } from './rounded';
export { nextTests } from './value-of-information';
