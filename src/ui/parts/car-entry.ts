import { z } from 'zod';
import { distance, type Notation } from '../../core/measure/units';
import { typedAsOrEmpty } from '../../core/measure/units/schema';
import { figureOrEmpty, text } from '../kit/typed';
import { tpmsOf, type MonitoringEntry } from './Monitoring';
import { serviceOf, type WorkEntry } from './WorkDone';

/** What is said of a car and its visit, when it is booked in and when that is corrected. */
export const carEntryIn = (units: Notation) =>
  z.object({
    label: text.min(1, 'Say which vehicle it is.'),
    plate: text,
    vin: text,
    modelYear: figureOrEmpty(
      'A year, as 2019.',
      (year) => Number.isInteger(year) && year >= 1950 && year <= 2100,
    ),
    odometer: typedAsOrEmpty(distance, units),
    profile: z.string(),
    complaint: text,
    customer: text,
    orderNumber: text,
    work: z.custom<WorkEntry>().transform((entry, context) => {
      const service = serviceOf(entry);
      if (service) return service;
      context.addIssue({ code: 'custom', message: 'Hours, as a figure.' });
      return z.NEVER;
    }),
    monitoring: z.custom<MonitoringEntry>().transform((entry) => tpmsOf(entry, units)),
  });

/** Where its kind is not on file, its monitoring must read; what is wrong with it stands at its own fields. */
export const monitoringReads =
  (isNewKind: (entry: { profile: string }) => boolean) =>
  (entry: { profile: string; monitoring: ReturnType<typeof tpmsOf> }, context: z.RefinementCtx): void => {
    if (isNewKind(entry) && !entry.monitoring.tpms)
      context.addIssue({ code: 'custom', path: ['monitoring'], message: 'Not all of it can be read.' });
  };
