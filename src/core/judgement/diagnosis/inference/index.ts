/** Sums over all hypotheses. In go evidence and priors; out comes the posterior: the chance of everything the model can say. */
export { Factors } from './factors';
export { type CarFact } from './marginals';
export { type Posterior, posteriorOf } from './posterior';
