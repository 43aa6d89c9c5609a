import { v7 as newId } from 'uuid';
import type { Booking } from '../../contract';
import { tireCelsius } from '../../core/gauge';
import { allOf, type Header, type Job, type Service, type Tpms } from '../../core/job';
import { toJobFile } from '../../core/job/record';
import { unknownProfile } from '../../contract/refusals';
import { success, type Result } from '../../core/result';
import { canonicalVin } from '../../core/vin';
import { inTransaction, type Tx } from '../../data/database';
import * as jobs from '../../data/jobs';
import { announce } from '../../data/notifications';
import { loadShop } from '../../data/shop';
import * as vehicles from '../../data/vehicles';
import type { Person } from '../people';
import { canonicalPlate, yearMs } from './common';

/** Opens a job for a vehicle, known or new. Problem: `unknown-profile`. */
export function bookIn(booking: Booking, who: Person): Promise<Result<{ id: string; number: number }>> {
  return inTransaction(async (tx) => {
    const there = await jobs.findJobByKey(tx, booking.key);
    if (there) return success({ id: there.id, number: there.number });

    const asked = booking.vehicle;
    const vin = asked.vin ? canonicalVin(asked.vin) : undefined;
    const plate = asked.plate ? canonicalPlate(asked.plate) : undefined;
    const known = await vehicles.findVehicle(tx, { ...(vin && { vin }), ...(plate && { plate }) });
    const profileName = asked.profile ?? known?.profile ?? undefined;
    const profile = profileName ? await vehicles.findProfile(tx, profileName) : undefined;
    if (profileName && !profile) {
      return unknownProfile(profileName);
    }
    const tpms: Tpms =
      asked.tpms ??
      (profile && asked.profile ? profile.tpms : (known?.tpms ?? profile?.tpms ?? { kind: 'direct' }));
    const placard = booking.placard ?? (known?.placard.length ? known.placard : (profile?.placard ?? []));
    const vehicle = await vehicles.saveVehicle(tx, known?.id ?? newId(), {
      vin: vin ?? known?.vin ?? null,
      plate: plate ?? known?.plate ?? null,
      label: asked.label,
      modelYear: asked.modelYear ?? known?.modelYear ?? null,
      profile: profileName ?? null,
      tpms,
      placard,
    });
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
        openedAt: openedAt.toISOString(),
        openedBy: who.name,
      },
    };
    const job = await jobs.createJob(tx, {
      id: newId(),
      key: booking.key,
      vehicleId: vehicle.id,
      header,
      openedBy: who.name,
      openedAt,
    });
    for (const entry of booking.observations ?? []) await jobs.addObservation(tx, job.id, who.name, entry);
    await announce(tx, job.id);
    return success({ id: job.id, number: job.number });
  });
}

/** What the records say of the wheels: the set that should be on the car, and its others. */
async function setsOnFile(tx: Tx, vehicleId: string, now: Date): Promise<Pick<Job, 'sensors' | 'otherSets'>> {
  const sets = await vehicles.loadWheelSets(tx, vehicleId);
  const sensors = sets
    .filter(({ fitted }) => fitted)
    .flatMap((set) => set.sensors)
    .map(({ sensorId, wheel, newOn }) => ({
      id: sensorId,
      ...(wheel && { wheel }),
      ...(newOn && { ageYears: Math.round(((now.getTime() - Date.parse(newOn)) / yearMs) * 10) / 10 }),
    }));
  const otherSets = sets
    .filter(({ fitted }) => !fitted)
    .map(({ label, sensors }) => ({ label, ids: sensors.map(({ sensorId }) => sensorId) }));
  return { ...(sensors.length > 0 && { sensors }), ...(otherSets.length > 0 && { otherSets }) };
}

/** Wheels that changed place or tires leave their earlier readings behind. */
const movesWheels: readonly Service['kind'][] = ['tires-fitted', 'rotation', 'wheels-swapped'];
/** So many earlier visits are looked through for readings. */
const visitsLookedThrough = 20;

/** Gauge readings of the same wheels at earlier visits, oldest first, each with the temperature of its day. */
async function readingsOnFile(tx: Tx, vehicleId: string): Promise<Pick<Job, 'history'>> {
  const rows = (await jobs.jobsOfVehicle(tx, vehicleId)).slice(0, visitsLookedThrough);
  const visits = (await jobs.loadRecords(tx, rows)).map(({ record }) => toJobFile(record));
  const moved = visits.findIndex(({ service }) => service && movesWheels.includes(service.kind));
  const same = moved < 0 ? visits : visits.slice(0, moved + 1);
  const history = same.reverse().flatMap((visit) =>
    allOf(visit, 'gauge').map(({ seen }) => {
      const tireC = tireCelsius(visit, seen);
      return tireC === undefined ? seen : { ...seen, tireC };
    }),
  );
  return history.length > 0 ? { history } : {};
}
