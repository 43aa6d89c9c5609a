import { readingAt } from '../../gauge';
import { altitudeOf, type Seen } from '../../job';
import { thresholdsFor } from '../../lamp';
import { placardKPa, placardToleranceKPa } from '../../placard';
import { atmosphericKPa, atTemperature, kelvin } from '../../pressure';
import { roadWheels, type Position } from '../../wheel';
import type { Rule, Scene, Statement } from '../scene';

/** A gauge and its reader are good to about this much, kPa (common practice: one psi over two readings). */
const gaugeErrorKPa = 6;
/** What seeps through sound rubber, kPa a month, at the most (common practice). */
const seepageKPaPerMonth = 14;
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

/** Two readings of one tire, each with its temperature: a loss that neither gauge error nor seepage explains. */
export const leak: Rule = (scene) =>
  scene.wheels.flatMap((wheel): Statement[] => {
    const readings = scene.ledger.gaugeHistory[wheel] ?? [];
    const last = readings.at(-1);
    const before = readings.at(-2);
    if (!last || !before) return [];
    const days = (Date.parse(last.seen.at) - Date.parse(before.seen.at)) / 86_400_000;
    const loss = lossBetween(scene, before.seen, last.seen);
    if (loss === undefined || loss <= gaugeErrorKPa + (seepageKPaPerMonth * days) / 30) return [];
    // Neighbours that lost as much in the same time were let down or read with another gauge: no leak claimed.
    const othersToo = scene.wheels.some((other) => {
      const [a, b] = (scene.ledger.gaugeHistory[other] ?? []).slice(-2);
      const theirs = other !== wheel && a && b ? lossBetween(scene, a.seen, b.seen) : undefined;
      return theirs !== undefined && Math.abs(theirs - loss) <= gaugeErrorKPa;
    });
    return othersToo
      ? []
      : [{ code: 'tire-leaking', wheel, certainty: 'corroborated', because: [before.index, last.index] }];
  });

/** kPa lost from one reading to the next, both at the temperature of the later; unknown if a temperature is. */
function lossBetween(scene: Scene, before: Seen<'gauge'>, last: Seen<'gauge'>): number | undefined {
  const fallback =
    before.tire === 'cold' && last.tire === 'cold' ? (scene.job.climate?.nowC ?? 20) : undefined;
  const from = before.tireC ?? fallback;
  const to = last.tireC ?? fallback;
  if (from === undefined || to === undefined) return undefined;
  return atTemperature({ kPa: before.kPa, celsius: from, altitudeM: altitudeOf(scene.job) }, to) - last.kPa;
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
