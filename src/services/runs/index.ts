/** The use cases of a relearn that is led through, each in a file of its own. */
export { readInRun, wakeInRun, writeInRun } from './devices';
export { flagProcedure } from './flag';
export { hearCar, tryDry } from './practice';
export { startRun } from './start';
export { tellRun } from './tell';
export { viewRun } from './view';
