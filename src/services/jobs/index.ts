/** The use cases of a job, each in a file of its own. */
export { assessmentOf, reasonsOf, sheetOfJob, verdictOf, viewIn, viewJob } from './view';
export { bookIn } from './book-in';
export { confirm } from './confirm';
export { editJob } from './edit';
export { exportJob } from './export';
export { handOver } from './hand-over';
export { importJob } from './import';
export { addNote } from './note';
export { record, recordIn } from './record';
export { yard } from './yard';
export { canonicalPlate, deriveKey } from './common';
