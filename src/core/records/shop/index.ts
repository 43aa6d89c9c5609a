import { z } from 'zod';
import { pricesSchema } from '../../job/schemas/replacement';
import { fillPolicies } from '../../names/kinds';
import { relearnMethods } from '../../relearn/method';
import { regulationNames } from '../../tire/thresholds/regulations';
import { daysAfter } from '../../measure/calendar/spans';
import { isTimeZone, regionCodes } from '../../measure/region';
import { metric, metricUnits, type Notation } from '../../measure/units';
import { unitChoiceSchema } from '../../measure/units/schema';

/** An address on the shop's network, as `host:port`; empty where there is none. */
const address = z
  .string()
  .trim()
  .max(200)
  .regex(/^$|^[A-Za-z0-9.-]+:\d{1,5}$/, 'an address is a host and a port, as 192.168.1.20:4700')
  .default('');

/** Where the devices of the shop answer. */
const deviceAddressesSchema = z.object({
  tool: address,
  lead: address,
  weather: z
    .string()
    .trim()
    .max(400)
    .refine((text) => text === '' || /^https?:$/.test(URL.canParse(text) ? new URL(text).protocol : ''), {
      message: 'an address begins with http:// or https://',
    })
    .default(''),
});
export type DeviceAddresses = z.infer<typeof deviceAddressesSchema>;
export const noDevices: DeviceAddresses = { tool: '', lead: '', weather: '' };

/** What holds for the whole shop until a job or a person says otherwise. */
export const shopSettingsSchema = z.object({
  units: unitChoiceSchema,
  /** How days, hours and figures are written, and the paper of the sheet. */
  region: z.enum(regionCodes).default(metric.region),
  /** Where it is, by the name of its time zone. Null: where the server stands. */
  timeZone: z
    .string()
    .max(64)
    .refine(isTimeZone, 'no time zone of this name is known here')
    .nullable()
    .default(null),
  /** Height of the shop, m. Null: nobody said, so sea level. */
  altitudeM: z.number().min(-500).max(6000).nullable(),
  /** The rule for cars whose own lamp figures are not known. */
  regulation: z.enum(regulationNames),
  /** How warm tires are aimed at placard. */
  fillPolicy: z.enum(fillPolicies),
  /** The relearn methods this shop likes best, in order: of two ways that are alike the earlier wins. */
  preferredMethods: z.array(z.enum(relearnMethods)).max(relearnMethods.length).default([]),
  /** As they stand on the customer's sheet. */
  name: z.string().trim().max(120).default(''),
  address: z.string().trim().max(400).default(''),
  devices: deviceAddressesSchema.default(noDevices),
  /** The shop has an activation tool that is not connected: what it shows is typed. */
  ownTool: z.boolean().default(true),
  /** The same of what talks to a car: its IDs, codes and figures are typed. */
  ownLead: z.boolean().default(true),
  /** Managers show a second factor at signing in; without one they may do what technicians do. */
  managersNeedSecondFactor: z.boolean().default(false),
  /** Whoever was not here for so many years is forgotten, and what tells their cars from others. Null: nobody is. */
  forgetAfterYears: z.int().min(1).max(30).nullable().default(null),
  /** When that begins. The shop says it: `forgettingFrom`. */
  forgetFrom: z.iso.datetime({ offset: true }).nullable().default(null),
  /** What replacing a sensor costs here. Null: nobody said. */
  prices: pricesSchema.nullable().default(null),
});

export type ShopSettings = z.infer<typeof shopSettingsSchema>;

/** A shop that set nothing yet. */
export const usualSettings: ShopSettings = {
  units: metricUnits,
  region: metric.region,
  timeZone: null,
  altitudeM: null,
  regulation: 'US',
  fillPolicy: 'ambient',
  preferredMethods: [],
  name: '',
  address: '',
  devices: noDevices,
  ownTool: true,
  ownLead: true,
  managersNeedSecondFactor: false,
  forgetAfterYears: null,
  forgetFrom: null,
  prices: null,
};

/** How somebody of the shop reads; `own`: units of their own. `serverZone` is the time zone the server stands in. */
export const notationOf = (
  { units, region, timeZone }: Pick<ShopSettings, 'units' | 'region' | 'timeZone'>,
  serverZone: string,
  own: Partial<ShopSettings['units']> | null = null,
): Notation => ({
  ...(own ? { ...metricUnits, ...own } : units),
  region,
  timeZone: timeZone ?? serverZone,
});

/** What is deleted never comes back, so a slip of these years can be put right for so many days first. */
const daysToThinkItOver = 7;

/** When a shop begins to forget by newly entered years: a week from now; by those it had, as it was. */
export function forgettingFrom(
  { forgetAfterYears }: ShopSettings,
  before: ShopSettings,
  now: Date,
): ShopSettings['forgetFrom'] {
  if (forgetAfterYears === null) return null;
  if (forgetAfterYears === before.forgetAfterYears && before.forgetFrom !== null) return before.forgetFrom;
  return daysAfter(now, daysToThinkItOver).toISOString();
}
