import type { NewCheck, NewGauge } from '../contract';
import { calibrationOf, type CalibrationCheck, type Instrument } from '../core/tire/gauge';
import {
  checkOfAnotherGauge,
  checkTooShort,
  gaugeNameTaken,
  gaugeNameTakenSince,
  unknownGauge,
} from '../contract/refusals';
import { success, type Result } from '../core/result';
import { inTransaction, type Tx } from '../data/database';
import * as gauges from '../data/gauges';
import { refuseUnless, type Person } from './people';

/** The shop's gauges, with their checks. */
export const register = (): Promise<Instrument[]> => inTransaction(gauges.loadGauges);

/** Problems: `not-allowed`, `name-taken`. */
export function addGauge(asked: NewGauge, who: Person): Promise<Result<Instrument[]>> {
  return inTransaction(async (tx) => {
    const refusal = refuseUnless(who, 'record-readings');
    if (refusal) return refusal;
    if (await gauges.findGauge(tx, asked.key)) return success(await gauges.loadGauges(tx));
    const taken = (await gauges.loadGauges(tx)).some(
      ({ name, retired }) => !retired && name.toLowerCase() === asked.name.toLowerCase(),
    );
    if (taken) return gaugeNameTaken(asked.name);
    const { key: id, name, kind, resolutionKPa } = asked;
    await gauges.addGauge(tx, { id, name, kind, resolutionKPa });
    return success(await gauges.loadGauges(tx));
  });
}

/** Takes a gauge out of use, or back into it. Problems: `not-allowed`, `unknown-gauge`, `name-taken`. */
export function setRetired(id: string, retired: boolean, who: Person): Promise<Result<Instrument[]>> {
  return inTransaction(async (tx) => {
    const refusal = refuseUnless(who, 'record-readings');
    if (refusal) return refusal;
    const row = await gauges.findGauge(tx, id);
    if (!row) return unknownGauge();
    const others = await gauges.loadGauges(tx);
    const clash = others.some(
      (other) => other.id !== id && !other.retired && other.name.toLowerCase() === row.name.toLowerCase(),
    );
    if (!retired && clash) return gaugeNameTakenSince(row.name);
    await row.update({ retired }, { transaction: tx });
    return success(await gauges.loadGauges(tx));
  });
}

/**
 * Stores a check; the same key again changes nothing. Jobs that are open hear of it, since readings made
 * with the gauge may be doubtful now. Problems: `not-allowed`, `unknown-gauge`, `key-in-use`, `check-one-point`.
 */
export function recordCheck(
  id: string,
  asked: NewCheck,
  who: Person,
  at = new Date(),
): Promise<Result<Instrument>> {
  return inTransaction(async (tx) => {
    const refusal = refuseUnless(who, 'record-readings');
    if (refusal) return refusal;
    const row = await gauges.findGauge(tx, id);
    if (!row) return unknownGauge();
    const there = await gauges.findCheck(tx, asked.key);
    if (there && there.gaugeId !== id) return checkOfAnotherGauge();
    if (!there) {
      const check: CalibrationCheck = { ...asked, at: at.toISOString(), by: who.name };
      if (!calibrationOf(check, row.resolutionKPa)) return checkTooShort();
      await gauges.addCheck(tx, id, check);
    }
    return success(await instrumentIn(tx, id));
  });
}

async function instrumentIn(tx: Tx, id: string): Promise<Instrument> {
  const found = (await gauges.loadGauges(tx)).find((gauge) => gauge.id === id);
  if (!found) throw new Error(`gauge ${id} is gone within its own transaction`);
  return found;
}
