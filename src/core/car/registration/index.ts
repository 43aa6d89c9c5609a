import type { Job } from '../../job';
import type { Ledger } from '../../job/ledger';
import { monitoredWheels } from '../../job/placard';
import { canonicalId, sameId, slipBetween } from '../../names/sensor-id';
import type { Position } from '../../names/wheel';

/** A sensor that was heard, and that the car does not hold where it is: held elsewhere, held with a slip, or not held. */
export interface Mismatch {
  wheel: Position;
  scanned: string;
  registered: string | null;
  kind: 'mistyped' | 'elsewhere' | 'absent';
}

/** The ID the tool heard at each monitored wheel, where it was heard clearly. */
export function scannedIds(job: Job, ledger: Ledger): { wheel: Position; id: string }[] {
  return monitoredWheels(job).flatMap((wheel) => {
    const scan = ledger.sensor[wheel];
    return scan?.kind === 'heard' ? [{ wheel, id: scan.reply.id }] : [];
  });
}

/**
 * What the car holds against what the tool heard. Missing while the car was not read or nothing was
 * heard, and where a position that was not read leaves open whether all agree. A car that does not tie IDs to
 * positions is compared as a set.
 */
export function compareRegistration(
  job: Job,
  ledger: Ledger,
): { ok: boolean; mismatches: Mismatch[] } | undefined {
  const scanned = scannedIds(job, ledger);
  if (!ledger.registry || scanned.length === 0) return undefined;
  const entries = ledger.held.flatMap(({ wheel, id }) => (id === null ? [] : [{ wheel, id }]));
  const ties = job.vehicle.tpms.locates !== false;
  const unclaimed = entries.filter((entry) => !scanned.some((sensor) => sameId(sensor.id, entry.id)));

  const mismatches = scanned.flatMap(({ wheel, id }): Mismatch[] => {
    if (holdsScanned(job, ledger, wheel)) return [];
    const isRead = !ties || ledger.registered[wheel] !== undefined;
    const registered = ledger.registered[wheel] ?? null;
    if (holdsAnywhere(entries, id)) return [{ wheel, scanned: id, registered, kind: 'elsewhere' }];
    const mistypedHere =
      registered !== null && unclaimed.some((entry) => entry.wheel === wheel) && slipBetween(id, registered);
    const mistyped = mistypedHere ? registered : unclaimed.find((entry) => slipBetween(id, entry.id))?.id;
    if (mistyped !== undefined) return [{ wheel, scanned: id, registered: mistyped, kind: 'mistyped' }];
    return isRead ? [{ wheel, scanned: id, registered, kind: 'absent' }] : [];
  });
  const isWhole = !ties || scanned.every(({ wheel }) => ledger.registered[wheel] !== undefined);
  return mismatches.length === 0 && !isWhole ? undefined : { ok: mismatches.length === 0, mismatches };
}

/**
 * Whether the car holds, for this wheel, the ID the tool heard there; for a car that does not tie IDs to
 * positions, anywhere. Undefined while that position was not read, or the wheel not heard clearly.
 */
export function holdsScanned(
  job: Job,
  { registry, held, registered, sensor }: Ledger,
  wheel: Position,
): boolean | undefined {
  const scan = sensor[wheel];
  if (!registry || scan?.kind !== 'heard') return undefined;
  const there = registered[wheel];
  if (there != null && sameId(there, scan.reply.id)) return true;
  if (job.vehicle.tpms.locates === false) return holdsAnywhere(held, scan.reply.id) !== undefined;
  return there === undefined ? undefined : false;
}

/** What the car holds was read: at every position, or the set of them where it ties none to a position. */
export function isWhollyRead(job: Job, ledger: Ledger): boolean {
  const wheels = monitoredWheels(job);
  if (wheels.length === 0) return true;
  if (!ledger.registry) return false;
  return (
    job.vehicle.tpms.locates === false || wheels.every((wheel) => ledger.registered[wheel] !== undefined)
  );
}

/** The entry that holds this ID, at whatever position. */
const holdsAnywhere = <Entry extends { id: string | null }>(
  entries: readonly Entry[],
  id: string,
): Entry | undefined => entries.find((entry) => entry.id !== null && sameId(entry.id, id));

/** IDs the car holds at more than one position, each with those positions. */
export function doublyRegistered(ledger: Ledger): Position[][] {
  const byId = new Map<string, Position[]>();
  for (const { wheel, id } of ledger.held) {
    if (id !== null) byId.set(canonicalId(id), [...(byId.get(canonicalId(id)) ?? []), wheel]);
  }
  return [...byId.values()].filter((wheels) => wheels.length > 1);
}
