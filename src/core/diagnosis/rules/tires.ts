import { readingAt } from '../../gauge';
import { altitudeOf, type Seen } from '../../job';
import { thresholdsFor } from '../../lamp';
import { lossOf, type Loss } from '../../leak';
import { placardKPa, placardToleranceKPa } from '../../placard';
import { atmosphericKPa, kelvin } from '../../pressure';
import { roadWheels, type Position } from '../../wheel';
import type { Rule, Scene, Statement } from '../scene';

/** Losses no further apart than this, kPa, are one loss (common practice: one psi over two readings). */
const sameLossKPa = 6;
/** A fall in temperature smaller than this, K, does not make a tire noticeably lower. */
const noticeableFallK = 6;
/** Shares of absolute pressure nearer than this count as one share: gauge error on some 330 kPa. */
const sameShare = 0.02;

/**
 * A wheel's last gauge pressure brought to the outdoor temperature of now. `bound` tells a warm tire
 * of unknown temperature: it can only be lower than read once it has cooled.
 */
function pressureNow(
  scene: Scene,
  wheel: Position,
): { kPa: number; bound: 'exact' | 'at-most'; index: number } | undefined {
  const reading = scene.ledger.gauge[wheel];
  if (!reading) return undefined;
  const nowC = scene.job.climate?.nowC;
  const exact = nowC === undefined ? undefined : readingAt(scene.job, reading.seen, nowC);
  if (exact !== undefined) return { kPa: exact, bound: 'exact', index: reading.index };
  return {
    kPa: reading.seen.kPa,
    bound: reading.seen.tire === 'cold' ? 'exact' : 'at-most',
    index: reading.index,
  };
}

/** Low, underinflated or overinflated: each wheel against placard and the lamp's thresholds. */
export const inflation: Rule = (scene) =>
  scene.wheels.flatMap((wheel): Statement[] => {
    const now = pressureNow(scene, wheel);
    if (!now) return [];
    const { lowOnKPa, highOnKPa } = thresholdsFor(scene.job, wheel);
    const cold = placardKPa(scene.job, wheel);
    const state = (code: Statement['code']): Statement[] => [
      { code, wheel, certainty: 'measured', because: [now.index] },
    ];
    if (lowOnKPa !== undefined && now.kPa <= lowOnKPa) return state('tire-low');
    if (cold !== undefined && now.kPa < cold - placardToleranceKPa) {
      // A warm tire of unknown temperature may be low as well once it is cold: how far down is not known.
      return now.bound === 'exact' ? state('tire-underinflated') : [];
    }
    return now.bound === 'exact' && highOnKPa !== undefined && now.kPa > highOnKPa
      ? state('tire-overinflated')
      : [];
  });

/** All road tires down by the one share of absolute pressure that the fall since the last fill explains. */
export const temperatureDrop: Rule = (scene) => {
  const { job } = scene;
  const { nowC, lastFillC } = job.climate ?? {};
  if (nowC === undefined || lastFillC === undefined || lastFillC - nowC < noticeableFallK) return [];
  const ambient = atmosphericKPa(altitudeOf(job));
  const expected = kelvin(nowC) / kelvin(lastFillC);
  const seen = roadWheels.flatMap((wheel) => {
    const now = pressureNow(scene, wheel);
    const cold = placardKPa(job, wheel);
    return now?.bound === 'exact' && cold !== undefined
      ? [{ wheel, index: now.index, share: (now.kPa + ambient) / (cold + ambient), down: cold - now.kPa }]
      : [];
  });
  const explained = seen.filter(({ share, down }) => down > 0 && Math.abs(share - expected) <= sameShare);
  if (explained.length < roadWheels.length) return [];
  return explained.map(({ wheel, index }) => ({
    code: 'temperature-drop',
    wheel,
    certainty: 'corroborated',
    because: [index],
  }));
};

/** A tire that loses more than its readings may be off and more than seeps through sound rubber. */
export const leak: Rule = (scene) => {
  const losses = scene.wheels.map((wheel) => lossOf(scene.job, wheel));
  return losses.flatMap((loss): Statement[] => {
    if (loss.verdict !== 'leaks' || othersLostAsMuch(loss, losses)) return [];
    const because = loss.levels.flatMap(({ reading }) => indexOf(scene, reading));
    // All of it was read at earlier visits: the last reading of this one is what can be pointed at.
    const here = because.length > 0 ? because : (scene.ledger.gauge[loss.wheel]?.index ?? []);
    return [{ code: 'tire-leaking', wheel: loss.wheel, certainty: 'corroborated', because: [here].flat() }];
  });
};

const indexOf = (scene: Scene, reading: Seen<'gauge'>): number[] => {
  const index = scene.job.observations.indexOf(reading);
  return index < 0 ? [] : [index];
};

/** Neighbours that lost as much in the same time were let down, or read with another gauge: no leak is claimed. */
function othersLostAsMuch({ wheel, levels, perDayKPa }: Loss, losses: readonly Loss[]): boolean {
  const days = levels.at(-1)?.days ?? 0;
  return losses.some(
    (other) =>
      other.wheel !== wheel &&
      other.perDayKPa !== undefined &&
      other.verdict === 'leaks' &&
      Math.abs(other.perDayKPa.best - (perDayKPa?.best ?? 0)) * days <= sameLossKPa,
  );
}

/** The lamp is steady, every tire is known and none is low, and some stand short of the "off" figure. */
export const latchedLamp: Rule = (scene) => {
  const { lamp } = scene.ledger;
  const watched = scene.monitored.length > 0 ? scene.monitored : scene.wheels;
  if (lamp?.seen.state !== 'steady') return [];
  const known = watched.flatMap((wheel) => {
    const now = pressureNow(scene, wheel);
    const { lowOnKPa, lowOffKPa } = thresholdsFor(scene.job, wheel);
    return now?.bound === 'exact' && lowOnKPa !== undefined && lowOffKPa !== undefined
      ? [{ wheel, ...now, lowOnKPa, lowOffKPa }]
      : [];
  });
  if (known.length < watched.length || known.some(({ kPa, lowOnKPa }) => kPa <= lowOnKPa)) return [];
  return known
    .filter(({ kPa, lowOffKPa }) => kPa < lowOffKPa)
    .map(({ wheel, index }) => ({
      code: 'lamp-latched',
      wheel,
      certainty: 'corroborated',
      because: [lamp.index, index],
    }));
};
