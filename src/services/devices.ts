import type { ActivationTool } from '../devices/activation/port';
import { jsonRpcTool } from '../devices/activation/json-rpc-tool';
import { plugIn } from '../devices/bay';
import { parseAddress, type Address } from '../devices/json-rpc';
import { openChannel } from '../devices/vehicle/channel';
import type { VehicleLead } from '../devices/vehicle/port';
import { udsLead } from '../devices/vehicle/uds-lead';
import type { Job } from '../core/job';
import type { Receiver } from '../core/uds/receiver';
import type { DevicesAtHand } from '../core/visit/view';
import { noLead, noTool, noVinForLead, otherCar } from '../contract/refusals';
import { success, type Result } from '../core/result';
import { canonicalVin } from '../core/vin';

/** Which devices this shop has, from the environment: `HACIENDA_TOOL`, `HACIENDA_LEAD`, `HACIENDA_BAY` as host:port. */
const addressFrom = (variable: string): Address | undefined => parseAddress(process.env[variable] ?? '');

export const practiceBay = () => addressFrom('HACIENDA_BAY');
/** The activation tool, and the cradle beside it. */
export const toolAddress = () => addressFrom('HACIENDA_TOOL');
export const hasTool = () => addressFrom('HACIENDA_TOOL') !== undefined;
export const hasLead = () => addressFrom('HACIENDA_LEAD') !== undefined || practiceBay() !== undefined;

/** What of devices is set up here. */
export const devicesNow = () => ({ tool: hasTool(), lead: hasLead(), practice: practiceBay() !== undefined });

/** What can be done to this car here. */
export function atHand({ vehicle }: Pick<Job, 'vehicle'>, receiver: Receiver | undefined): DevicesAtHand {
  const { tool, lead, practice } = devicesNow();
  const canBeRead = receiver !== undefined;
  return {
    tool: tool && vehicle.tpms.kind === 'direct',
    lead: lead && canBeRead,
    takesThresholds: lead && receiver?.thresholds !== undefined,
    practice: practice && canBeRead,
  };
}

/** Problem: `no-tool`. */
export function activationTool(): Result<ActivationTool> {
  const address = addressFrom('HACIENDA_TOOL');
  return address ? success(jsonRpcTool(address)) : noTool();
}

/**
 * Works with the lead in one car, having asked the car itself who it is: a lead left in the neighbour's
 * car must not be read, let alone written, as this one.
 * Problems: `no-lead`, `lead-unreachable`, `car-silent`, `other-car`, and what `work` meets.
 */
export async function withLead<Value>(
  vin: string | undefined,
  receiver: Receiver,
  work: (lead: VehicleLead) => Promise<Result<Value>>,
): Promise<Result<Value>> {
  const address = await leadAddress(vin);
  if (!address.ok) return address;
  const channel = await openChannel(address.value.host, address.value.port);
  if (!channel.ok) return channel;
  const lead = udsLead(channel.value, receiver);
  try {
    const found = await lead.readVin();
    if (!found.ok) return found;
    if (vin && canonicalVin(found.value) !== canonicalVin(vin)) {
      return otherCar(found.value, vin);
    }
    return await work(lead);
  } finally {
    lead.close();
  }
}

async function leadAddress(vin: string | undefined): Promise<Result<Address>> {
  const fixed = addressFrom('HACIENDA_LEAD');
  if (fixed) return success(fixed);
  const bay = practiceBay();
  if (bay && vin) return plugIn(bay, vin);
  return bay ? noVinForLead() : noLead();
}
