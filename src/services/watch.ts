import { onChange } from '../data/notifications';

/** Calls back when a job changed in any server process; with nothing when a change may have been missed. */
export const watchJobs = (callback: (jobId: string | undefined) => void): (() => void) => onChange(callback);
