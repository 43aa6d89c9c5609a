export { isPassing } from '../data/database';
export { Unreadable } from '../data/jobs';
