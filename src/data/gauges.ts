import type { CalibrationCheck, Instrument } from '../core/tire/gauge';
import type { Tx } from './database';
import { GaugeCheckRow, GaugeRow } from './models';

/** The register: every gauge with its checks, oldest first. */
export async function loadGauges(tx: Tx): Promise<Instrument[]> {
  const gauges = await GaugeRow.findAll({ order: [['name', 'ASC']], raw: true, transaction: tx });
  if (gauges.length === 0) return [];
  const checks = await GaugeCheckRow.findAll({ order: [['at', 'ASC']], raw: true, transaction: tx });
  return gauges.map(({ id, name, kind, resolutionKPa, retired }) => ({
    id,
    name,
    kind,
    resolutionKPa,
    retired,
    checks: checks.filter(({ gaugeId }) => gaugeId === id).map(checkOf),
  }));
}

const checkOf = ({
  key,
  at,
  by,
  reference,
  referenceUncertaintyKPa,
  points,
}: GaugeCheckRow): CalibrationCheck => ({
  key,
  at: at.toISOString(),
  by,
  reference,
  referenceUncertaintyKPa,
  points,
});

export const findGauge = (tx: Tx, id: string) => GaugeRow.findByPk(id, { transaction: tx });

export const addGauge = (tx: Tx, gauge: Pick<GaugeRow, 'id' | 'name' | 'kind' | 'resolutionKPa'>) =>
  GaugeRow.create(gauge, { transaction: tx });

export const findCheck = (tx: Tx, key: string) => GaugeCheckRow.findByPk(key, { transaction: tx });

export const addCheck = (tx: Tx, gaugeId: string, check: CalibrationCheck) =>
  GaugeCheckRow.create({ ...check, gaugeId, at: new Date(check.at) }, { transaction: tx });
