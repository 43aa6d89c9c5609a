/** The use cases of a job, each in a file of its own. */
export {
  assessmentOf,
  briefAssessmentOf,
  claimsOfJob,
  reasonsOf,
  revisionOf,
  sheetOfJob,
  verdictOf,
  viewIn,
  viewJob,
} from './view';
export { bookIn } from './book-in';
export { cancelJob, reopenJob } from './cancel';
export { confirm } from './confirm';
export { editJob } from './edit';
export { exportJob } from './export';
export { handOver } from './hand-over';
export { historyOf } from './history';
export { importJob, takeIn } from './import';
export { addNote } from './note';
export { record, recordIn } from './record';
export { takeBack } from './take-back';
export { yard } from './yard';
export { deriveKey } from './common';
