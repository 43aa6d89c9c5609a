import type { Code } from '../../core/job';
import type { Outcome } from '../../core/outcome';
import type { LiveEntry, RegistryEntry } from '../../core/uds/receiver';

/** What the app asks of a lead into the car's diagnostic connector. Every wait is bounded. */
export interface VehicleLead {
  /** The VIN the car itself gives: whose car is at the other end. */
  readVin: () => Promise<Outcome<string>>;
  readRegistry: () => Promise<Outcome<RegistryEntry[]>>;
  readCodes: () => Promise<Outcome<Code[]>>;
  readLive: () => Promise<Outcome<{ speedKmh: number; entries: LiveEntry[] }>>;
  readSupply: () => Promise<Outcome<{ volts: number; engine: 'on' | 'off' }>>;
  writeRegistry: (entries: readonly RegistryEntry[]) => Promise<WriteAnswer>;
  clearCodes: () => Promise<WriteAnswer>;
  close: () => void;
}

/** What the car said to a write. Whether it worked is another matter: read it back. */
export type WriteAnswer =
  { answer: 'yes' } | { answer: 'no'; reason: string } | { answer: 'lost'; reason: string };
