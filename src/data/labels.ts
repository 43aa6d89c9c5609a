import type { Labelled, LabelTarget } from '../core/names/label';
import { brokenRule, type Tx } from './database';
import { LabelRow } from './models';

export const findLabel = (tx: Tx, code: string) => LabelRow.findByPk(code, { transaction: tx });

export const labelOf = (tx: Tx, target: LabelTarget) =>
  LabelRow.findOne({ where: whereOf(target), transaction: tx });

function whereOf(target: LabelTarget): Partial<Record<string, string>> & { of: Labelled } {
  switch (target.of) {
    case 'key':
      return { of: 'key', vehicleId: target.vehicleId };
    case 'set':
      return { of: 'set', wheelSetId: target.wheelSetId };
    case 'wheel':
      return { of: 'wheel', wheelSetId: target.wheelSetId, wheel: target.wheel };
    case 'sensor':
      return { of: 'sensor', sensorId: target.sensorId };
  }
}

export const addLabel = (tx: Tx, code: string, by: string, target: LabelTarget) =>
  LabelRow.create(
    { code, by, vehicleId: null, wheelSetId: null, wheel: null, sensorId: null, ...target },
    { transaction: tx },
  );

export type { LabelRow };

/** Whether somebody else made a label of the same thing at the same time, or one with the same code. */
export const isTakenMeanwhile = (error: unknown): boolean => /^labels_/.test(brokenRule(error) ?? '');
