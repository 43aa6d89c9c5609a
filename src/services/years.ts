import { v5 as derivedId } from 'uuid';
import { yearsOf, type Asked, type SimulatedVehicle } from '../simulation/years';
import { emptyBulk, fill, indexMet, type Bulk } from '../data/bulk';
import { canonicalPlate } from '../core/records/vehicle/plate';

/** Years of a busy chain straight into the database, for benches and for trying. */

/** So many vehicles go in at once. */
const vehiclesAtOnce = 500;
const customerSpace = '8d6a4c52-0f0e-5a5b-9c6e-5f2f7a7f0b11';

/** `onProgress` is told how many vehicles are in. */
export async function fillYears(
  asked: Asked,
  onProgress: (done: number) => void = () => undefined,
): Promise<void> {
  let bulk = emptyBulk();
  let done = 0;
  for (const vehicle of yearsOf(asked)) {
    add(bulk, vehicle);
    done += 1;
    if (done % vehiclesAtOnce === 0 || done === asked.vehicles) {
      await fill(bulk);
      bulk = emptyBulk();
      onProgress(done);
    }
  }
  await indexMet();
}

function add(
  bulk: Bulk,
  { id, vin, plate, label, modelYear, tpms, placard, customer, sets, visits }: SimulatedVehicle,
): void {
  const customerId = derivedId(`${customer} of ${id}`, customerSpace);
  bulk.customers.push({ id: customerId, name: customer });
  bulk.vehicles.push({
    id,
    vin,
    plate: canonicalPlate(plate),
    label,
    model_year: modelYear,
    profile: null,
    tpms,
    placard,
    customer_id: customerId,
  });
  for (const set of sets) {
    const place = set.isOn ? 'car' : 'shop';
    bulk.wheel_sets.push({
      id: set.id,
      vehicle_id: id,
      label: set.label,
      season: set.season,
      place,
      rack: set.rack,
    });
    for (const { wheel, sensorId, newOn } of set.wheels)
      bulk.wheels.push({ wheel_set_id: set.id, sensor_id: sensorId, wheel, new_on: newOn });
  }
  for (const visit of visits) {
    bulk.jobs.push({
      id: visit.id,
      key: visit.key,
      vehicle_id: id,
      state: 'handed-over',
      version: 2,
      header: visit.header,
      opened_by: visit.by,
      opened_at: visit.openedAt,
      handed_over_at: visit.handedOverAt,
      handed_over_by: visit.by,
    });
    for (const { key, observation } of visit.observations)
      bulk.observations.push({
        key,
        job_id: visit.id,
        kind: observation.kind,
        at: observation.at,
        body: observation,
        recorded_by: visit.by,
        recorded_at: observation.at,
      });
    for (const { key, ...part } of visit.turnedOut)
      bulk.confirmations.push({ key, job_id: visit.id, at: visit.handedOverAt, by: visit.by, parts: [part] });
  }
}
