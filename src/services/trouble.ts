export { isPassing } from '../data/database';
