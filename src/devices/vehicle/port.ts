import type { Code } from '../../core/job';
import type { Result } from '../../core/result';
import type { LampThresholds, LiveEntry, RegistryEntry } from '../../core/car/uds/receiver';

/** What the app asks of a lead into the car's diagnostic connector. Every wait is bounded. */
export interface VehicleLead {
  /** The VIN the car itself gives: whose car is at the other end. */
  readVin: () => Promise<Result<string>>;
  readRegistry: () => Promise<Result<RegistryEntry[]>>;
  readCodes: () => Promise<Result<Code[]>>;
  readLive: () => Promise<Result<{ speedKmh: number; entries: LiveEntry[] }>>;
  readSupply: () => Promise<Result<{ volts: number; engine: 'on' | 'off' }>>;
  writeRegistry: (entries: readonly RegistryEntry[]) => Promise<WriteAnswer>;
  /** Undefined where the receiver keeps none that can be read. */
  readThresholds: () => Promise<Result<LampThresholds | undefined>>;
  writeThresholds: (thresholds: LampThresholds) => Promise<WriteAnswer>;
  clearCodes: () => Promise<WriteAnswer>;
  close: () => void;
}

/** What the car said to a write. Whether it worked is another matter: read it back. */
export type WriteAnswer =
  { answer: 'yes' } | { answer: 'no'; reason: string } | { answer: 'lost'; reason: string };
