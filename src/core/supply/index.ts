import type { Ledger } from '../ledger';

/** Under this, V, with the engine off, a module may brown out while it is written (common practice). */
export const leastVoltsToWrite = 12.2;

/** The supply as it was last read is too low to write to the car; one that nobody read is not. */
export const supplyIsLow = ({ voltage }: Ledger): boolean =>
  voltage?.seen.engine === 'off' && voltage.seen.volts < leastVoltsToWrite;
