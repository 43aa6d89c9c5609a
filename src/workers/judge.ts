/** A thread of the server that judges. */
export { judge as default } from '../core/judging';
