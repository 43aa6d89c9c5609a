import type { Observation } from '../job';

/** A line of a job's history. What was put right or taken back stays, and says so. */
export type HistoryLine =
  | {
      kind: 'recorded';
      at: string;
      by: string;
      key: string;
      observation: Observation;
      corrected?: boolean | undefined;
      takenBack?: { at: string; by: string; reason: string } | undefined;
    }
  | { kind: 'changed'; at: string; by: string; changes: FieldChange[] };

/** A field of the visit, as it was and as it is. */
export interface FieldChange {
  field: string;
  from: string | null;
  to: string | null;
}

/** The fields of a visit as they are spoken of. */
const fieldNames: Record<string, string> = {
  placard: 'Placard',
  loadCase: 'Load',
  fitted: 'Tires on the car',
  repairs: 'Repairs',
  putOff: 'Put off',
  replacement: 'What is replaced',
  service: 'Done lately',
  climate: 'Weather',
  label: 'Vehicle',
  vin: 'VIN',
  plate: 'Plate',
  modelYear: 'Model year',
  odometerKm: 'Odometer, km',
  profile: 'Kind of vehicle',
  tpms: 'Monitoring',
  complaint: 'What the customer says',
  customer: 'Customer',
  orderNumber: 'Order',
  state: 'Job',
  bench: 'Note',
  followUp: 'Follow-up',
  wheelSet: 'Wheel set on the car',
};

export const fieldName = (field: string): string => fieldNames[field] ?? field;
