/** What most jobs need not say: fetched together, where one of them has to. */
export { Closed } from './visit/Closed';
export { MetElsewhere } from './MetElsewhere';
