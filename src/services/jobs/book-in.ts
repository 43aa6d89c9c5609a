import { v7 as newId } from 'uuid';
import type { Booking, Profile } from '../../contract';
import { tireCelsius } from '../../core/tire/gauge';
import { allOf, wasDone, type Header, type Job, type Service, type Tpms } from '../../core/job';
import { toJobFile } from '../../core/job/record';
import { alreadyOpen, setIsOn, unknownJob, unknownProfile, unknownSet } from '../../contract/refusals';
import { success, type Result } from '../../core/result';
import { canonicalVin } from '../../core/names/vin';
import { notesOf } from '../../core/job/header';
import { inTransaction, type Tx } from '../../data/database';
import { setOwner } from '../../data/customers';
import * as jobs from '../../data/jobs';
import { loadShop } from '../../data/shop';
import * as vehicles from '../../data/vehicles';
import { loadWheelSets } from '../../data/wheel-sets';
import type { WheelSet } from '../../core/records/wheel-set';
import type { Person } from '../people';
import { canonicalPlate } from '../../core/records/vehicle/plate';
import { deriveKey } from './common';
import { recordIn, refuseFirst, refuseRecording } from './record';
import { yearMs } from '../../core/measure/calendar/spans';

/**
 * Opens a job for a vehicle, known or new. A car whose job is open already is not booked in twice. Problems:
 * `unknown-profile`, `unknown-set`, `already-open` with the ID of that job, `unknown-job` where it should follow up one that is not there,
 * `not-allowed`, `no-such-wheel` and `key-in-use` for what was read with it.
 */
export function bookIn(booking: Booking, who: Person): Promise<Result<{ id: string; number: number }>> {
  return inTransaction(async (tx) => {
    const first = booking.observations ?? [];
    const refusal = refuseRecording(who, first);
    if (refusal) return refusal;
    const there = await jobs.findJobByKey(tx, booking.key);
    if (there) return success({ id: there.id, number: there.number });

    const asked = booking.vehicle;
    const vin = asked.vin ? canonicalVin(asked.vin) : undefined;
    const plate = asked.plate ? canonicalPlate(asked.plate) : undefined;
    const known = await vehicles.findVehicle(tx, { ...(vin && { vin }), ...(plate && { plate }) });
    const open = known && (await jobs.openJobOf(tx, known.id));
    if (open) return alreadyOpen(open.number, open.id);
    const before = booking.followUpOf ? await jobs.lockJob(tx, booking.followUpOf) : undefined;
    if (booking.followUpOf && !before) return unknownJob();
    const onFile = asked.profile ?? known?.profile ?? undefined;
    const profile = onFile ? await vehicles.findProfile(tx, onFile) : undefined;
    if (onFile && !profile) return unknownProfile(onFile);
    const tpms: Tpms =
      asked.tpms ??
      (profile && asked.profile ? profile.tpms : (known?.tpms ?? profile?.tpms ?? { kind: 'direct' }));
    const placard = booking.placard ?? (known?.placard.length ? known.placard : (profile?.placard ?? []));
    const profileName =
      onFile ?? (booking.keepKindAs && (await keepKind(tx, booking.keepKindAs, { tpms, placard })));
    const vehicle = await vehicles.saveVehicle(tx, known?.id ?? newId(), {
      vin: vin ?? known?.vin ?? null,
      plate: plate ?? known?.plate ?? null,
      label: asked.label,
      modelYear: asked.modelYear ?? known?.modelYear ?? null,
      profile: profileName ?? null,
      tpms,
      placard,
    });
    await setOwner(tx, vehicle.id, booking.customer);
    const planned = booking.plannedSet
      ? (await loadWheelSets(tx, vehicle.id)).find(
          ({ id, place }) => id === booking.plannedSet && place !== 'gone',
        )
      : undefined;
    if (booking.plannedSet && !planned) return unknownSet();
    if (planned?.place === 'car') return setIsOn();
    const openedAt = new Date();
    const shop = await loadShop(tx);
    const header: Header = {
      format: 'hacienda.job/1',
      vehicle: {
        label: vehicle.label,
        ...(vehicle.vin && { vin: vehicle.vin }),
        ...(asked.plate ? { plate: asked.plate } : vehicle.plate && { plate: vehicle.plate }),
        ...(vehicle.modelYear && { modelYear: vehicle.modelYear }),
        ...(asked.odometerKm !== undefined && { odometerKm: asked.odometerKm }),
        ...(profileName && { profile: profileName }),
        tpms: { ...tpms, regulation: tpms.regulation ?? shop.regulation },
      },
      placard,
      ...(known?.fitted && { fitted: known.fitted }),
      service: booking.service ?? { kind: 'none' },
      climate: {
        ...(shop.altitudeM !== null && { altitudeM: shop.altitudeM }),
        fillPolicy: shop.fillPolicy,
        ...booking.climate,
      },
      ...(await setsOnFile(tx, vehicle.id, openedAt)),
      ...(await readingsOnFile(tx, vehicle.id)),
      visit: {
        key: booking.key,
        ...(booking.complaint && { complaint: booking.complaint }),
        ...(booking.customer && { customer: booking.customer }),
        ...(booking.orderNumber && { orderNumber: booking.orderNumber }),
        openedAt: openedAt.toISOString(),
        openedBy: who.name,
        ...(planned && { plannedSet: { id: planned.id, label: planned.label, rack: planned.rack } }),
        ...(before && { followUpOf: { id: before.id, number: before.number } }),
      },
    };
    const refused = await refuseFirst(tx, header, first);
    if (refused) return refused;
    const job = await jobs.createJob(tx, {
      id: newId(),
      key: booking.key,
      vehicleId: vehicle.id,
      header,
      openedBy: who.name,
      openedAt,
    });
    await recordIn(tx, job.id, first, who);
    if (before) await noteFollowUp(tx, before, job, who);
    return success({ id: job.id, number: job.number });
  });
}

/** The job that is followed up says so. */
async function noteFollowUp(tx: Tx, before: jobs.JobRow, job: jobs.JobRow, who: Person): Promise<void> {
  const followedUpBy = { id: job.id, number: job.number };
  await jobs.saveEdit(
    tx,
    before,
    {
      key: deriveKey(job.key, 'follow-up'),
      by: who.name,
      changes: [{ field: 'followUp', from: null, to: `job ${job.number}` }],
    },
    { header: { ...before.header, visit: { ...notesOf(before.header), followedUpBy } } },
  );
}

/** A kind of vehicle as the counter knows it, kept for the next one; its name. One that has this label already stays as it is. */
async function keepKind(
  tx: Tx,
  label: string,
  { tpms, placard }: Pick<Profile, 'tpms' | 'placard'>,
): Promise<string> {
  const same = (await vehicles.listProfiles(tx)).find((profile) => profile.label === label);
  if (same) return same.name;
  const name = newId();
  await vehicles.saveProfile(tx, {
    name,
    label,
    fromYear: null,
    toYear: null,
    tpms,
    placard,
    receiver: null,
  });
  return name;
}

/** What the records say of the wheels: the set that should be on the car, and its others. */
async function setsOnFile(tx: Tx, vehicleId: string, now: Date): Promise<Pick<Job, 'sensors' | 'otherSets'>> {
  return knownSets(await loadWheelSets(tx, vehicleId), now);
}

/** The same of sets as they are. */
export function knownSets(sets: readonly WheelSet[], now: Date): Pick<Job, 'sensors' | 'otherSets'> {
  const heard = (set: WheelSet) =>
    set.wheels.flatMap(({ sensorId, ...wheel }) => (sensorId === null ? [] : [{ sensorId, ...wheel }]));
  const sensors = sets
    .filter(({ place }) => place === 'car')
    .flatMap(heard)
    .map(({ sensorId, wheel, newOn }) => ({
      id: sensorId,
      ...(wheel && { wheel }),
      ...(newOn && { ageYears: Math.round(((now.getTime() - Date.parse(newOn)) / yearMs) * 10) / 10 }),
    }));
  const otherSets = sets
    .filter((set) => set.place !== 'car' && set.place !== 'gone' && heard(set).length > 0)
    .map((set) => ({ label: set.label, ids: heard(set).map(({ sensorId }) => sensorId) }));
  return { ...(sensors.length > 0 && { sensors }), ...(otherSets.length > 0 && { otherSets }) };
}

/** Wheels that changed place or tires leave their earlier readings behind. */
const movesWheels: readonly Service['kind'][] = ['tires-fitted', 'rotation', 'wheels-swapped'];
/** So many earlier visits are looked through for readings. */
const visitsLookedThrough = 20;

/** Gauge readings of the same wheels at earlier visits, oldest first, each with the temperature of its day. */
async function readingsOnFile(tx: Tx, vehicleId: string): Promise<Pick<Job, 'history'>> {
  const rows = (await jobs.jobsOfVehicle(tx, vehicleId)).slice(0, visitsLookedThrough);
  // A visit that cannot be read tells nothing of its wheels.
  const visits = (
    await jobs.loadReadable(
      tx,
      rows.map(({ id }) => id),
    )
  ).flatMap(({ record }) => (record instanceof jobs.Unreadable ? [] : [toJobFile(record)]));
  const moved = visits.findIndex((visit) => wasDone(visit, ...movesWheels));
  const same = moved < 0 ? visits : visits.slice(0, moved + 1);
  const history = same.reverse().flatMap((visit) =>
    allOf(visit, 'gauge').map(({ seen }) => {
      const tireC = tireCelsius(visit, seen);
      return tireC === undefined ? seen : { ...seen, tireC };
    }),
  );
  return history.length > 0 ? { history } : {};
}
