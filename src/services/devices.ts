import { setting } from '../settings';
import { connect } from 'node:net';
import type { ActivationTool } from '../devices/activation/port';
import { jsonRpcTool } from '../devices/activation/json-rpc-tool';
import { plugIn } from '../devices/bay';
import { parseAddress, type Address } from '../devices/json-rpc';
import { openChannel } from '../devices/vehicle/channel';
import type { VehicleLead } from '../devices/vehicle/port';
import { udsLead } from '../devices/vehicle/uds-lead';
import type { Job } from '../core/job';
import type { Receiver } from '../core/car/uds/receiver';
import { noDevices, type DeviceAddresses, type ShopSettings } from '../core/records/shop';
import type { DevicesAtHand, DeviceState } from '../contract/views';
import { nothingThere, noLead, noTool, noVinForLead, otherCar } from '../contract/refusals';
import { success, type Result } from '../core/result';
import { canonicalVin } from '../core/names/vin';

/** Devices that answer on the network, and the variables that name them at the start: they come before what is set up. */
const variables = { tool: 'HACIENDA_TOOL', lead: 'HACIENDA_LEAD', weather: 'HACIENDA_WEATHER' } as const;
export type DeviceKind = keyof typeof variables;
export const deviceKinds = Object.keys(variables) as DeviceKind[];

/** As the shop set them up; every request brings what holds. */
let setUp: DeviceAddresses = noDevices;
export const useDevices = (addresses: DeviceAddresses): void => {
  setUp = addresses;
};

/** Where a device answers, as it was named at the start or set up; empty where it is neither. */
export const addressText = (kind: DeviceKind): string => setting(variables[kind]) ?? setUp[kind];
const isNamedAtStart = (kind: DeviceKind): boolean => setting(variables[kind]) !== undefined;
const addressOf = (kind: 'tool' | 'lead'): Address | undefined => parseAddress(addressText(kind));

export const practiceBay = (): Address | undefined => parseAddress(setting('HACIENDA_BAY') ?? '');
/** The activation tool, and the cradle beside it. */
export const toolAddress = () => addressOf('tool');
export const hasTool = () => addressOf('tool') !== undefined;
export const hasLead = () => addressOf('lead') !== undefined || practiceBay() !== undefined;

/** What of devices is set up here. */
export const devicesNow = () => ({ tool: hasTool(), lead: hasLead(), practice: practiceBay() !== undefined });

/** What can be done to this car here. */
export function atHand(
  { vehicle }: Pick<Job, 'vehicle'>,
  receiver: Receiver | undefined,
  shop: Pick<ShopSettings, 'ownTool' | 'ownLead'>,
): DevicesAtHand {
  const { tool, lead, practice } = devicesNow();
  const canBeRead = receiver !== undefined;
  const isDirect = vehicle.tpms.kind === 'direct';
  return {
    tool: tool && isDirect,
    lead: lead && canBeRead,
    ownTool: shop.ownTool && isDirect,
    ownLead: shop.ownLead,
    takesThresholds: lead && receiver?.thresholds !== undefined,
    practice: practice && canBeRead,
  };
}

/** Problem: `no-tool`. */
export function activationTool(): Result<ActivationTool> {
  const address = addressOf('tool');
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
  noteDevice('lead', channel);
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
  const fixed = addressOf('lead');
  if (fixed) return success(fixed);
  const bay = practiceBay();
  if (bay && vin) return plugIn(bay, vin);
  return bay ? noVinForLead() : noLead();
}

/** What was last heard of a device by this server. */
interface Heard {
  /** Since when it has answered without a miss. */
  since: string | null;
  lastHeardAt: string | null;
  trouble: { at: string; message: string } | null;
  by: string | null;
}
const heard = new Map<DeviceKind, Heard>();

/** Notes that a device answered, or did not; and for whom. */
export function noteDevice(kind: DeviceKind, answer: Result<unknown>, by?: string): void {
  const before = heard.get(kind);
  const at = new Date().toISOString();
  heard.set(
    kind,
    answer.ok
      ? {
          since: before?.since ?? at,
          lastHeardAt: at,
          trouble: before?.trouble ?? null,
          by: by ?? before?.by ?? null,
        }
      : {
          since: null,
          lastHeardAt: before?.lastHeardAt ?? null,
          trouble: { at, message: answer.problem.message },
          by: by ?? before?.by ?? null,
        },
  );
}

/** Every device there can be: where it answers, and how it last did. */
export const devicesAsHeard = (): DeviceState[] =>
  deviceKinds.map((kind) => ({
    kind,
    address: addressText(kind) || (standsIn(kind) ? 'the simulated cars' : ''),
    namedAtStart: isNamedAtStart(kind) || standsIn(kind),
    since: null,
    lastHeardAt: null,
    trouble: null,
    by: null,
    ...heard.get(kind),
  }));

/** In the demo the simulated cars answer in place of a lead. */
const standsIn = (kind: DeviceKind): boolean =>
  kind === 'lead' && addressText(kind) === '' && practiceBay() !== undefined;

/** Asks whether anything answers at the address of a device, without doing anything with it. */
export async function tryDevice(kind: DeviceKind, by: string): Promise<DeviceState[]> {
  const text = addressText(kind);
  const address = kind === 'weather' ? webAddress(text) : parseAddress(text);
  if (address) noteDevice(kind, await answersAt(address), by);
  return devicesAsHeard();
}

function webAddress(text: string): Address | undefined {
  if (!URL.canParse(text)) return undefined;
  const { hostname, port, protocol } = new URL(text);
  return { host: hostname, port: Number(port) || (protocol === 'https:' ? 443 : 80) };
}

const patienceMs = 2000;

function answersAt({ host, port }: Address): Promise<Result<null>> {
  return new Promise((resolve) => {
    const socket = connect({ host, port, timeout: patienceMs });
    const end = (result: Result<null>) => {
      socket.destroy();
      resolve(result);
    };
    const silent = () => end(nothingThere(`${host}:${port}`));
    socket.once('connect', () => end(success(null)));
    socket.once('error', silent);
    socket.once('timeout', silent);
  });
}
