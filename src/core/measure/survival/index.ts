/** How long things last, told from lives that did not all end. */
export { kaplanMeier, type Lifetime, type Step } from './kaplan-meier';
export { aliveAt, fitWeibull, leastEnds, type Weibull } from './weibull';
