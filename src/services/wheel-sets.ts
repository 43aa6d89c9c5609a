import {
  anotherSetIsOn,
  rackTaken,
  setChanged,
  setHasFaults,
  setIsOn,
  setLabelTaken,
  unknownJob,
  unknownSet,
  unknownVehicle,
} from '../contract/refusals';
import { doneLately, type Header, type Job } from '../core/job';
import { success, type Issue, type Result } from '../core/result';
import { notesOf } from '../core/job/header';
import type { VisitView } from '../contract/views';
import { idsTwice, type Place, type Season, type SetWheel, type WheelSet } from '../core/records/wheel-set';
import { madeIn } from '../core/records/wheel-set/tire';
import { axleOf } from '../core/names/wheel';
import { inJobTransaction, inTransaction, type Tx } from '../data/database';
import * as jobs from '../data/jobs';
import { findVehicleById } from '../data/vehicles';
import { findWheelSet, loadWheelSets, saveWheelSet, setInRack } from '../data/wheel-sets';
import { knownSets } from './jobs/book-in';
import { refuseClosed, stale } from './jobs/common';
import { viewIn } from './jobs/view';
import type { Person } from './people';

/** The wheel sets of vehicles: what they are, where they are, and which is on. */

export const wheelSetsOf = (vehicleId: string): Promise<WheelSet[]> =>
  inTransaction((tx) => loadWheelSets(tx, vehicleId));

/** A set as somebody enters it. A new one has version 0. */
export interface EnteredSet {
  id: string;
  version: number;
  label: string;
  season: Season;
  place: Place;
  rack: string | null;
  wheels: SetWheel[];
}

/**
 * Puts a set on file, or changes it. Problems: `unknown-vehicle`, `unknown-set`,
 * `stale`, `name-taken`, `rack-taken` (on the car too), `invalid-input` with what is wrong with a wheel.
 */
export function saveSet(vehicleId: string, asked: EnteredSet): Promise<Result<WheelSet[]>> {
  return inTransaction(async (tx) => {
    if (!(await findVehicleById(tx, vehicleId))) return unknownVehicle();
    const there = await findWheelSet(tx, asked.id);
    if (there && there.vehicleId !== vehicleId) return unknownSet();
    // The same again, after an answer that got lost.
    if (there && asked.version === 0 && there.version === 1)
      return success(await loadWheelSets(tx, vehicleId));
    if ((there?.version ?? 0) !== asked.version) return there ? setChanged() : unknownSet();
    const sets = await loadWheelSets(tx, vehicleId);
    if (sets.some(({ id, label }) => id !== asked.id && label.toLowerCase() === asked.label.toLowerCase()))
      return setLabelTaken(asked.label);
    const faults = faultsIn(asked.wheels);
    if (faults.length > 0) return setHasFaults(faults);
    const { place } = asked;
    const onCar = sets.find((set) => set.place === 'car' && set.id !== asked.id);
    if (place === 'car' && onCar) return anotherSetIsOn(onCar.label);
    const rack = place === 'shop' ? asked.rack : null;
    const taken = await refuseRack(tx, rack, asked.id);
    if (taken) return taken;
    const { id, label, season, wheels } = asked;
    await saveWheelSet(tx, { id, vehicleId, label, season, place, rack, wheels });
    return success(await loadWheelSets(tx, vehicleId));
  });
}

function faultsIn(wheels: readonly SetWheel[]): Issue[] {
  const twice = idsTwice(wheels);
  return wheels.flatMap(({ dot, sensorId, wheel }, at): Issue[] => {
    const made = dot === null ? undefined : madeIn(dot);
    const other = wheels.findIndex((one) => one.wheel !== null && one.wheel === wheel);
    return [
      ...(made && !made.ok ? [{ path: `wheels.${at}.dot`, message: made.problem.message }] : []),
      ...(sensorId !== null && twice.includes(sensorId.replace(/[\s-]/g, '').toUpperCase())
        ? [{ path: `wheels.${at}.sensorId`, message: 'This ID stands at two wheels: read both again.' }]
        : []),
      ...(other >= 0 && other < at
        ? [{ path: `wheels.${at}.wheel`, message: 'Another wheel of the set has this place.' }]
        : []),
    ];
  });
}

async function refuseRack(tx: Tx, rack: string | null, id: string): Promise<Result<never> | undefined> {
  if (!rack) return undefined;
  const other = await setInRack(tx, rack, id);
  return other ? rackTaken(rack, other.label) : undefined;
}

/** Which set goes on, and where the one that comes off goes. */
interface Swap {
  key: string;
  version: number;
  set: string;
  off: { place: Exclude<Place, 'car'>; rack: string | null };
}

/**
 * Puts another set on the car of a job, in one step: the sets change places, the job says that other wheels were put on,
 * and what it knows of sensors is what is known of the new ones. Problems: `unknown-job`, `handed-over`, `cancelled`,
 * `stale`, `unknown-set`, `rack-taken`.
 */
export function swapSets(id: string, asked: Swap, who: Person): Promise<Result<VisitView>> {
  return inJobTransaction(id, async (tx) => {
    const row = await jobs.lockJob(tx, id);
    if (!row) return unknownJob();
    if ((await jobs.findEdit(tx, asked.key))?.jobId === id) return viewIn(tx, id);
    const closed = refuseClosed(row);
    if (closed) return closed;
    if (row.version !== asked.version) return stale(tx, id, asked.version);
    const sets = await loadWheelSets(tx, row.vehicleId);
    const next = sets.find((set) => set.id === asked.set);
    if (!next || next.place === 'gone') return unknownSet();
    if (next.place === 'car') return setIsOn();
    const onCar = sets.find(({ place }) => place === 'car');
    const rack = asked.off.place === 'shop' ? asked.off.rack : null;
    // The place the next set leaves is free for the one that comes off.
    const taken = onCar && rack !== next.rack ? await refuseRack(tx, rack, onCar.id) : undefined;
    if (taken) return taken;
    if (onCar) await saveWheelSet(tx, { ...onCar, place: asked.off.place, rack });
    await saveWheelSet(tx, { ...next, place: 'car', rack: null });
    await jobs.saveEdit(
      tx,
      row,
      {
        key: asked.key,
        by: who.name,
        changes: [{ field: 'wheelSet', from: onCar?.label ?? null, to: next.label }],
      },
      { header: withSetOn(row.header, next, await loadWheelSets(tx, row.vehicleId)) },
    );
    return viewIn(tx, id);
  });
}

/** A job's header once a set is on: other wheels were put on, and these are the sensors that should be in them. */
function withSetOn(header: Header, on: WheelSet, sets: readonly WheelSet[]): Header {
  const also = doneLately(header as Job).filter(({ kind }) => kind !== 'wheels-swapped');
  const sizes = [
    ...new Map(
      on.wheels.flatMap(({ wheel, size }) => (wheel && size ? [[axleOf(wheel), size] as const] : [])),
    ),
  ];
  const { sensors, otherSets } = knownSets(sets, new Date());
  const { plannedSet, ...notes } = notesOf(header);
  return {
    ...header,
    // What was planned is done, once it is on.
    visit: plannedSet && plannedSet.id !== on.id ? { ...notes, plannedSet } : notes,
    sensors: sensors ?? [],
    otherSets: otherSets ?? [],
    service: { kind: 'wheels-swapped', hoursAgo: 0, ...(also.length > 0 && { also }) },
    ...(sizes.length > 0 && { fitted: sizes.map(([position, size]) => ({ position, size })) }),
  };
}
