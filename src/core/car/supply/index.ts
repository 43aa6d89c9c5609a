import type { Tpms } from '../../job';
import type { Ledger } from '../../job/ledger';

/** Under this, V, with the engine off, a module may brown out while it is written (common practice). */
export const leastVoltsToWrite = 12.2;

/** The supply as it was last read is too low to write to the car; one that nobody read is not. */
export const supplyIsLow = ({ voltage }: Ledger): boolean =>
  voltage?.seen.engine === 'off' && voltage.seen.volts < leastVoltsToWrite;

/** What holds the supply up while a module is written (common practice). */
export const supportWords = ({ electric }: Pick<Tpms, 'electric'>): string =>
  electric
    ? 'keep this electric car switched on, parking brake set: its 12 V battery is small'
    : 'connect a charger';
