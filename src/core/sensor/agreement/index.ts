import { usualUncertaintyKPa } from '../../tire/gauge';
import { isLetOut } from '../../job/history/let-out';
import type { Job, Placed } from '../../job';
import { oneStopMs } from '../../job/together';
import { ledgerOf, type Ledger } from '../../job/ledger';
import type { Position } from '../../names/wheel';

/** A sensor against the gauge at the same wheel, both with what they may be off. */
export interface Agreement {
  /** Sensor less gauge, kPa. */
  differenceKPa: number;
  /** Expanded uncertainty (95 %) of that difference for a sound sensor, kPa. */
  uncertaintyKPa: number;
  /**
   * `agrees`: within what both may be off. `drifts`: beyond that, not yet wrong. `wrong`: off by more
   * than 10 kPa and by more than both may be off together.
   */
  verdict: 'agrees' | 'drifts' | 'wrong';
}

/** A sound sensor may be off by so much: its expanded uncertainty, kPa (common practice: one psi). */
const sensorUncertaintyKPa = 7;
/** A sensor further than this from a trusted gauge, kPa, reads wrong (contract of the assessment). */
export const wrongKPa = 10;

export function agreementOf(
  sensorKPa: number,
  gaugeKPa: number,
  gaugeUncertaintyKPa = usualUncertaintyKPa,
): Agreement {
  const differenceKPa = sensorKPa - gaugeKPa;
  const uncertaintyKPa = Math.hypot(sensorUncertaintyKPa, gaugeUncertaintyKPa);
  const off = Math.abs(differenceKPa);
  if (off <= uncertaintyKPa) return { differenceKPa, uncertaintyKPa, verdict: 'agrees' };
  return { differenceKPa, uncertaintyKPa, verdict: off > wrongKPa ? 'wrong' : 'drifts' };
}

/**
 * The sensor last heard at a wheel against the trusted gauge readings of the same stop: it is off only if
 * it agrees with none of them. Undefined where there is nothing to compare.
 */
export function agreementAt(
  job: Job,
  wheel: Position,
  { sensor, gaugeHistory }: Ledger = ledgerOf(job),
): (Agreement & { scan: Placed<'activation'>; readings: Placed<'gauge'>[] }) | undefined {
  const scan = sensor[wheel];
  const heardKPa = scan?.kind === 'heard' ? scan.reply.kPa : undefined;
  if (scan?.kind !== 'heard' || heardKPa == null) return undefined;
  const readings = (gaugeHistory[wheel] ?? []).filter(
    ({ seen }) =>
      seen.trusted !== false &&
      Math.abs(Date.parse(seen.at) - Date.parse(scan.at.seen.at)) <= oneStopMs &&
      !isLetOut(job, wheel, Date.parse(scan.at.seen.at), Date.parse(seen.at)),
  );
  const [nearest] = readings
    .map(({ seen }) => agreementOf(heardKPa, seen.kPa, seen.uncertaintyKPa))
    .sort((a, b) => Math.abs(a.differenceKPa) - Math.abs(b.differenceKPa));
  if (!nearest) return undefined;
  // A reading taken while the tire was being filled lies between the one before and the one after.
  const gauged = readings.map(({ seen }) => seen.kPa);
  const between = heardKPa > Math.min(...gauged) && heardKPa < Math.max(...gauged);
  return { ...nearest, ...(between && { verdict: 'agrees' }), scan: scan.at, readings };
}
