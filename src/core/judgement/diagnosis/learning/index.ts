/** How common each fault is here: by the catalogue, by the work done, by age, and by what this shop has seen. */
export { type Experience } from './experience';
export { type Priors, priorsFor, priorsWith } from './priors';
