import type { JobFilter } from '../contract';
import {
  distanceOf,
  readQuery,
  withSlip,
  type Found,
  type FoundVehicle,
  type ListedJob,
} from '../core/records/search';
import { looksLikeCode } from '../core/names/label';
import { inTransaction } from '../data/database';
import { followLabel } from './labels';
import * as search from '../data/search';

/** So many sensors are told; more of the digits tell which. */
const mostSensors = 9;
/** Fewer found by its words than this, a name is looked for as it may be meant. */
const fewFound = 3;

/** Everything that what was typed may mean, over all years; empty where it is too short to look for. */
export async function find(typed: string): Promise<Found[]> {
  const query = readQuery(typed);
  if (!query) return [];
  const label = looksLikeCode(query.text) ? await followLabel(query.text) : undefined;
  return inTransaction(async (tx) => {
    const jobs = query.number === undefined ? [] : await search.jobByNumber(tx, query.number);
    const byCode = query.code.length < 2 ? [] : await search.vehiclesByCode(tx, query.code);
    const byName = await search.vehiclesByName(tx, query.words);
    const nearly =
      byCode.length + byName.length < fewFound && isName(query.text)
        ? await search.vehiclesByNameNearly(tx, query.text)
        : [];
    return [
      ...(label?.ok ? [{ kind: 'label' as const, ...label.value }] : []),
      ...jobs.map((job): Found => ({ kind: 'job', ...job })),
      ...distinct([...byCode, ...byName, ...nearly]).map((vehicle): Found => ({
        kind: 'vehicle',
        ...vehicle,
      })),
      ...(query.digits === undefined ? [] : await sensors(tx, query.digits)),
    ];
  });
}

/** Names have letters alone, and enough of them to be written wrongly. */
const isName = (text: string): boolean => text.length >= 4 && !/\d/.test(text);

async function sensors(tx: Parameters<typeof search.sensorIds>[0], digits: string): Promise<Found[]> {
  const ids = (await search.sensorIds(tx, digits, withSlip(digits)))
    .map((id) => ({ id, distance: distanceOf(id, digits) }))
    .sort((a, b) => a.distance - b.distance || a.id.localeCompare(b.id))
    .slice(0, mostSensors);
  const met = await search.vehiclesWithSensors(
    tx,
    ids.map(({ id }) => id),
  );
  return ids.map(({ id, distance }): Found => {
    const { lastAt = null, vehicles = [] } = met.get(id) ?? {};
    return { kind: 'sensor', sensorId: id, slip: distance === 3, lastAt, vehicles };
  });
}

function distinct(vehicles: readonly FoundVehicle[]): FoundVehicle[] {
  return [...new Map(vehicles.map((vehicle) => [vehicle.id, vehicle])).values()];
}

/** So many jobs stand on a page of the list. */
const jobsPerPage = 50;

/** Jobs of all years, the newest first, a page at a time. */
export async function listJobs(asked: JobFilter): Promise<{ jobs: ListedJob[]; more: boolean }> {
  const { from, to, by, state, unproved, beforeAt, beforeId } = asked;
  const filter: search.JobFilter = {
    ...(from && { from: new Date(from) }),
    ...(to && { to: new Date(to) }),
    ...(by && { openedBy: by }),
    ...(state && { state }),
    ...(unproved && { unproved: true }),
    ...(beforeAt && beforeId && { before: { openedAt: new Date(beforeAt), id: beforeId } }),
  };
  const found = await inTransaction((tx) => search.listJobs(tx, filter, jobsPerPage + 1));
  return { jobs: found.slice(0, jobsPerPage), more: found.length > jobsPerPage };
}
