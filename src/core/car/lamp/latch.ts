import type { Job } from '../../job';
import type { Ledger } from '../../job/ledger';
import type { Target } from '../../tire/filling';
import { watchedWheels } from './forecast';
import { thresholdsFor } from '../../tire/thresholds';
import type { Position } from '../../names/wheel';

/** A wheel that keeps a lit lamp lit: above its "on" figure, short of "off". */
export interface Latch {
  wheel: Position;
  kPa: number;
  lowOnKPa: number;
  lowOffKPa: number;
  /** How much air puts the lamp out, kPa, at the tire's temperature of now. */
  outWithKPa: number;
  /** How much brings it to its target, which is what to fill to: just over the line it would be back. */
  fillWithKPa: number;
}

/** The wheels that hold the lamp, by their readings as they stand; none where it is not lit. */
export function latchesOf(job: Job, ledger: Ledger, targets: readonly Target[]): Latch[] {
  if (ledger.lamp?.seen.state !== 'steady') return [];
  return watchedWheels(job).flatMap((wheel): Latch[] => {
    const kPa = ledger.gauge[wheel]?.seen.kPa;
    const { lowOnKPa, lowOffKPa } = thresholdsFor(job, wheel);
    if (kPa === undefined || lowOnKPa === undefined || lowOffKPa === undefined) return [];
    if (kPa <= lowOnKPa || kPa >= lowOffKPa) return [];
    const outWithKPa = lowOffKPa - kPa;
    const toTarget = targets.find((target) => target.wheel === wheel)?.addKPa ?? 0;
    return [{ wheel, kPa, lowOnKPa, lowOffKPa, outWithKPa, fillWithKPa: Math.max(outWithKPa, toTarget) }];
  });
}
