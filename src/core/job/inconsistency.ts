/** Something in the job that cannot be, and where: a dotted path into the job file, and one sentence. */
export interface Inconsistency {
  path: string;
  message: string;
}
