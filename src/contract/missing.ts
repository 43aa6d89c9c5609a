import type { Result } from '../core/result';
import {
  unknownAddress,
  unknownCustomer,
  unknownFlag,
  unknownFollowUp,
  unknownGauge,
  unknownJob,
  unknownList,
  unknownPerson,
  unknownRun,
  unknownToken,
  unknownVehicle,
} from './refusals';

/** What an address can name, and what is said where there is none. */
export const missing = {
  job: unknownJob,
  vehicle: unknownVehicle,
  run: unknownRun,
  gauge: unknownGauge,
  person: unknownPerson,
  customer: unknownCustomer,
  list: unknownList,
  'follow-up': unknownFollowUp,
  token: unknownToken,
  address: unknownAddress,
  flag: unknownFlag,
} as const satisfies Record<string, () => Result<never>>;
export type Named = keyof typeof missing;
