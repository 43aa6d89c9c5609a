import { model } from '../model';
import type { WheelEvidence } from '../evidence';
import { normalDensity } from '../../../measure/normal';
import type { Priors } from '../learning';
import { type Emit, bit, indirectCause } from '../hypotheses';

/**
 * Takes the states of a tire of an indirect system and gives on those of its wheel: whether it rolls on an
 * odd radius. What a low tire takes off the radius is expected, so only what is left over speaks for another
 * size or wear. An indirect system knows no line for the lamp to go out at: a tire between is not low.
 */
export function turningStates(wheel: WheelEvidence, priors: Priors, emit: Emit): Emit {
  const oddRadius = priors.of['rolling-radius-off'];
  const { odd } = model.rolling;
  const seen = wheel.signs.includes('odd-size');
  const usual = (1 - oddRadius) * (seen ? odd.unseen : 1);
  const off = oddRadius * (seen ? odd.seen : 1);
  return (weight, findings) => {
    const low = (findings & bit['tire-low']) !== 0 ? indirectCause.low : indirectCause.nothing;
    emit(weight * usual * turnsFactor(wheel, findings, false), findings, low);
    emit(
      weight * off * turnsFactor(wheel, findings, true),
      findings | bit['rolling-radius-off'],
      Math.max(low, indirectCause['odd-radius']),
    );
  };
}

function turnsFactor(wheel: WheelEvidence, findings: number, isOdd: boolean): number {
  if (wheel.turns === undefined) return 1;
  const { perKPaMissing, perKPaDoubt, soundSd, oddSd } = model.rolling;
  const expected = perKPaMissing * missingKPa(wheel, findings);
  const sound = soundSd ** 2 + (perKPaDoubt * expected) ** 2;
  return normalDensity(wheel.turns - 1 - expected, isOdd ? sound + oddSd ** 2 : sound);
}

/** About how far a tire in this state is from placard: by its reading, else by the middle of its place. */
function missingKPa({ placardKPa, gauge, lines }: WheelEvidence, findings: number): number {
  if (placardKPa === undefined) return 0;
  if (gauge) return placardKPa - gauge.kPa;
  if ((findings & bit['tire-low']) !== 0)
    return Number.isFinite(lines.low) ? placardKPa - lines.low + 25 : 60;
  return (findings & bit['tire-underinflated']) !== 0 ? 20 : 0;
}
