import { unknownJob, unknownVehicle } from '../contract/refusals';
import { asJudged } from '../core/tire/gauge';
import type { Job } from '../core/job';
import { toJobFile } from '../core/job/record';
import { success, type Result } from '../core/result';
import type { FoundVehicle } from '../core/records/search';
import { canonicalId } from '../core/names/sensor-id';
import { meetingsOf, whyShared, type Meeting, type Shared } from '../core/records/sensor-past';
import { inOrder, type Visit } from '../core/records/vehicle';
import type { Sheet } from '../core/visit/sheet';
import type { WheelSet } from '../core/records/wheel-set';
import type { Position } from '../core/names/wheel';
import { inTransaction, type Tx } from '../data/database';
import * as jobs from '../data/jobs';
import { idsMetElsewhere, jobsWithSensor, vehiclesById } from '../data/search';
import { findVehicleById, type VehicleFacts } from '../data/vehicles';
import { loadWheelSets, wheelSetsWith } from '../data/wheel-sets';
import { sheetOfJob, viewJob } from './jobs';
import { surroundings } from './surroundings';

/** What the shop remembers of a vehicle and of a sensor, over all visits. */

/** So many visits are looked through; a car has a fraction of them. */
const mostVisits = 200;

interface VehiclePast {
  vehicle: VehicleFacts;
  listed: FoundVehicle;
  /** Oldest first. */
  visits: Visit[];
  /** Visits with a record that cannot be read: which, and what of it. */
  unreadable: { id: string; number: number; what: string }[];
  sets: WheelSet[];
}

/** Problem: `unknown-vehicle`. */
export function pastOfVehicle(id: string): Promise<Result<VehiclePast>> {
  return inTransaction(async (tx) => {
    const vehicle = await findVehicleById(tx, id);
    const [listed] = await vehiclesById(tx, [id]);
    if (!vehicle || !listed) return unknownVehicle();
    const rows = (await jobs.jobsOfVehicle(tx, id)).slice(0, mostVisits);
    return success({
      vehicle: vehicle.get(),
      listed,
      ...(await visitsFrom(
        tx,
        rows.map((row) => row.id),
      )),
      sets: await loadWheelSets(tx, id),
    });
  });
}

async function visitsFrom(
  tx: Tx,
  ids: readonly string[],
): Promise<Pick<VehiclePast, 'visits' | 'unreadable'>> {
  const loaded = await jobs.loadReadable(tx, ids);
  const { gauges } = await surroundings(tx, loaded[0]?.surroundings ?? '');
  const visits: Visit[] = [];
  const unreadable: VehiclePast['unreadable'] = [];
  for (const { row, record } of loaded) {
    const { id, number, state, vehicleId, openedAt, version } = row;
    if (record instanceof jobs.Unreadable) {
      unreadable.push({ id, number, what: record.what });
      continue;
    }
    const job: Job = asJudged(toJobFile(record), gauges);
    visits.push({ id, number, state, vehicleId, openedAt: new Date(openedAt).toISOString(), version, job });
  }
  return { visits: inOrder(visits), unreadable };
}

/** What one ID met, and at which vehicles; where there are several, why. */
interface SensorPast {
  id: string;
  meetings: Meeting[];
  vehicles: FoundVehicle[];
  /** For each vehicle after the first: why it was met there too. */
  shared: { vehicleId: string; with: string; why: Shared }[];
  /** Where it is on file. */
  onFile: { set: WheelSet; wheel: Position | null; newOn: string | null }[];
}

/** Everything about an ID; nothing was met where the lists are empty. */
export const pastOfSensor = (id: string): Promise<SensorPast> =>
  inTransaction(async (tx) => {
    const canonical = canonicalId(id);
    const { visits } = await visitsFrom(tx, await jobsWithSensor(tx, canonical, mostVisits));
    const meetings = meetingsOf(canonical, visits);
    const order = [...new Set(meetings.map(({ vehicleId }) => vehicleId))];
    const known = new Map((await vehiclesById(tx, order)).map((vehicle) => [vehicle.id, vehicle]));
    const sets = await wheelSetsWith(tx, canonical);
    return {
      id: canonical,
      meetings,
      vehicles: order.flatMap((vehicle) => known.get(vehicle) ?? []),
      shared: sharedAmong(canonical, visits, order),
      onFile: sets.flatMap((set) =>
        set.wheels.flatMap(({ sensorId, wheel, newOn }) =>
          sensorId !== null && canonicalId(sensorId) === canonical ? [{ set, wheel, newOn }] : [],
        ),
      ),
    };
  });

const sharedAmong = (id: string, visits: readonly Visit[], [first, ...others]: readonly string[]) =>
  others.flatMap((vehicleId) => {
    const why = first === undefined ? undefined : whyShared(id, visits, first, vehicleId);
    return why && first !== undefined ? [{ vehicleId, with: first, why }] : [];
  });

/** An ID of a job that was met at another vehicle too. */
export interface MetElsewhere {
  sensorId: string;
  vehicle: FoundVehicle;
  why: Shared;
}

/** IDs of a job that other vehicles had or have: seen at once, and explained. Problem: `unknown-job`. */
export function metElsewhere(jobId: string): Promise<Result<MetElsewhere[]>> {
  return inTransaction(async (tx) => {
    const row = await jobs.findJob(tx, jobId);
    if (!row) return unknownJob();
    const found: MetElsewhere[] = [];
    for (const sensorId of await idsMetElsewhere(tx, jobId, row.vehicleId)) {
      const { visits } = await visitsFrom(tx, await jobsWithSensor(tx, sensorId, mostVisits));
      const others = new Set(visits.map(({ vehicleId }) => vehicleId).filter((id) => id !== row.vehicleId));
      for (const vehicle of await vehiclesById(tx, [...others])) {
        const why = whyShared(sensorId, visits, vehicle.id, row.vehicleId);
        if (why) found.push({ sensorId, vehicle, why });
      }
    }
    return success(found);
  });
}

/** So many of the last visits are judged anew for what they found; of the older ones their sheets tell. */
const mostJudged = 12;

/** What each of the last visits found and how it was left, by its sheet. Worked out once, and remembered. */
export async function sheetsOf(visits: readonly Visit[]): Promise<Map<string, Sheet>> {
  const known = await Promise.all(
    visits.slice(-mostJudged).map(async ({ id }) => {
      const view = await viewJob(id);
      return view.ok ? [[id, await sheetOfJob(view.value)] as const] : [];
    }),
  );
  return new Map(known.flat());
}
