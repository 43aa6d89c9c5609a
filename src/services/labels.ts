import { randomInt } from 'node:crypto';
import { unknownLabel, unknownSensor, unknownSet, unknownVehicle } from '../contract/refusals';
import { newCode, readCode, type Labelled, type LabelTarget } from '../core/names/label';
import { success, type Result } from '../core/result';
import { canonicalId, groupedId } from '../core/names/sensor-id';
import { inTransaction, type Tx } from '../data/database';
import { addLabel, findLabel, isTakenMeanwhile, labelOf, type LabelRow } from '../data/labels';
import { idIsKnown } from '../data/parts';
import { vehiclesById } from '../data/search';
import { findVehicleById } from '../data/vehicles';
import { findWheelSet } from '../data/wheel-sets';
import type { Person } from './people';

/** The code of each thing's label, made where there is none yet. Problems: `unknown-vehicle`, `unknown-set`, `not-found` for a sensor. */
export async function codesFor(targets: readonly LabelTarget[], who: Person): Promise<Result<string[]>> {
  const codes: string[] = [];
  for (const target of targets) {
    const code = await codeFor(
      target.of === 'sensor' ? { ...target, sensorId: canonicalId(target.sensorId) } : target,
      who,
    );
    if (!code.ok) return code;
    codes.push(code.value);
  }
  return success(codes);
}

async function codeFor(target: LabelTarget, who: Person): Promise<Result<string>> {
  for (;;) {
    try {
      return await inTransaction(async (tx) => {
        const refusal = await refuseTarget(tx, target);
        if (refusal) return refusal;
        const there = await labelOf(tx, target);
        if (there) return success(there.code);
        return success((await addLabel(tx, newCode(randomInt), who.name, target)).code);
      });
    } catch (error) {
      // Somebody else labelled it at the same moment: theirs holds.
      if (!isTakenMeanwhile(error)) throw error;
    }
  }
}

async function refuseTarget(tx: Tx, target: LabelTarget): Promise<Result<never> | undefined> {
  if (target.of === 'sensor') return (await idIsKnown(tx, target.sensorId)) ? undefined : unknownSensor();
  if (!(await findVehicleById(tx, target.vehicleId))) return unknownVehicle();
  if (target.of === 'key') return undefined;
  const set = await findWheelSet(tx, target.wheelSetId);
  return set?.vehicleId === target.vehicleId ? undefined : unknownSet();
}

/** Where a label leads. Problems: `torn-label`, `unknown-label` for one that was not printed here. */
export function followLabel(text: string): Promise<Result<{ code: string; of: Labelled; path: string }>> {
  const code = readCode(text);
  if (!code.ok) return Promise.resolve(code);
  return inTransaction(async (tx) => {
    const label = await findLabel(tx, code.value);
    const path = label && (await pathOf(tx, label));
    return label && path ? success({ code: code.value, of: label.of, path }) : unknownLabel();
  });
}

async function pathOf(
  tx: Tx,
  { of, vehicleId, wheelSetId, sensorId }: LabelRow,
): Promise<string | undefined> {
  if (of === 'sensor') return sensorId === null ? undefined : `/sensors/${encodeURIComponent(sensorId)}`;
  if (of === 'key') {
    const vehicle = vehicleId === null ? null : await findVehicleById(tx, vehicleId);
    return vehicle ? `/vehicles/${vehicle.mergedInto ?? vehicle.id}` : undefined;
  }
  // A set goes with its car: where that was put together with another, it is there now.
  const set = wheelSetId === null ? undefined : await findWheelSet(tx, wheelSetId);
  return set ? `/vehicles/${set.vehicleId}#set-${set.id}` : undefined;
}

/** A label as it is printed: its code, and what a person reads beside it. */
export interface PrintedLabel {
  code: string;
  lines: string[];
}

/** What stands on labels, in this order; those that are none of ours are left out. */
export function labelsToPrint(codes: readonly string[]): Promise<PrintedLabel[]> {
  return inTransaction(async (tx) => {
    const found: PrintedLabel[] = [];
    for (const text of codes) {
      const code = readCode(text);
      const label = code.ok ? await findLabel(tx, code.value) : null;
      if (label) found.push({ code: label.code, lines: await linesOf(tx, label) });
    }
    return found;
  });
}

/** No customer's name: a label lies about. */
async function linesOf(tx: Tx, label: LabelRow): Promise<string[]> {
  if (label.of === 'sensor') return [`Sensor ${groupedId(label.sensorId ?? '')}`];
  const set = label.wheelSetId === null ? undefined : await findWheelSet(tx, label.wheelSetId);
  const [vehicle] = await vehiclesById(tx, [set?.vehicleId ?? label.vehicleId ?? '']);
  const car = [vehicle?.plate, vehicle?.label].filter(Boolean).join(', ');
  if (label.of === 'key' || !set) return [car, 'Key'];
  if (label.of === 'set') return [`Set ${set.label}`, car, ...(set.rack ? [`Place ${set.rack}`] : [])];
  const sensorId = set.wheels.find(({ wheel }) => wheel === label.wheel)?.sensorId;
  return [`${label.wheel ?? ''}, ${set.label}`, car, ...(sensorId ? [groupedId(sensorId)] : [])];
}
