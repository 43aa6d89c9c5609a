import { agreementAt } from '../../agreement';
import { allOf } from '../../job';
import { canonicalId, sameId } from '../../sensor-id';
import type { Position } from '../../wheel';
import { isAboveWakeSpeed } from '../../wake-speed';
import type { Rule, Scene, Statement } from '../scene';

/** Carriers nearer than this, MHz, are one and the same; 315 and 433.92 are far apart. */
const sameCarrierMHz = 1;
/** A share of check-ins lower than the others' by this is a miss of its own (judgement). */
const missedShare = 0.15;

/** Silent to two tries, or to one and the car has it down as not heard; and the car got nothing from it. */
export const silence: Rule = (scene) =>
  scene.monitored.flatMap((wheel): Statement[] => {
    const scan = scene.ledger.sensor[wheel];
    if (scan?.kind !== 'silent' || carHears(scene, wheel)) return [];
    const code = scene.ledger.codes.find(({ seen }) => seen.about === 'no-signal' && seen.wheel === wheel);
    const triggers = new Set(scan.tries.map(({ seen }) => seen.trigger));
    if (triggers.size < 2 && !code) return [];
    const because = [...scan.tries.map(({ index }) => index), ...(code ? [code.index] : [])];
    return [
      {
        code: neverHadSensor(scene, wheel) ? 'sensor-absent' : 'sensor-silent',
        wheel,
        certainty: code || triggers.size > 2 ? 'corroborated' : 'inferred',
        because,
      },
    ];
  });

/** The car had a pressure from this wheel on a drive. */
function carHears(scene: Scene, wheel: Position): boolean {
  return allOf(scene.job, 'live').some(
    ({ seen }) => seen.wheel === wheel && (seen.kPa ?? 0) > 0 && isAboveWakeSpeed(scene.job, seen.speedKmh),
  );
}

/** A plain rubber stem, no record of a sensor, and the car holds none for it. */
function neverHadSensor(scene: Scene, wheel: Position): boolean {
  const rubber = allOf(scene.job, 'visual').some(
    ({ seen }) => seen.wheel === wheel && seen.sign === 'stem-rubber',
  );
  const recorded = scene.job.sensors?.some((sensor) => sensor.wheel === wheel) ?? false;
  return rubber && !recorded && scene.ledger.registered[wheel] == null;
}

/** The reply itself says that the battery is ending. */
export const battery: Rule = (scene) =>
  heard(scene).flatMap(({ wheel, index, reply }) =>
    reply.battery === 'low'
      ? [{ code: 'sensor-battery-low', wheel, certainty: 'measured', because: [index] }]
      : [],
  );

/** Another carrier or another family than the car hears. */
export const wrongType: Rule = (scene) => {
  const { frequencyMHz, family } = scene.job.vehicle.tpms;
  return heard(scene).flatMap(({ wheel, index, reply }): Statement[] => {
    const offCarrier =
      frequencyMHz !== undefined &&
      reply.frequencyMHz !== undefined &&
      Math.abs(reply.frequencyMHz - frequencyMHz) > sameCarrierMHz;
    const offFamily =
      family !== undefined &&
      reply.family !== undefined &&
      reply.family.toLowerCase() !== family.toLowerCase();
    return offCarrier || offFamily
      ? [{ code: 'sensor-wrong-type', wheel, certainty: 'measured', because: [index] }]
      : [];
  });
};

/** The sensor against the trusted gauge readings of the same stop. */
export const accuracy: Rule = (scene) =>
  heard(scene).flatMap(({ wheel, index }): Statement[] => {
    const agreement = agreementAt(scene.ledger, wheel);
    if (agreement?.verdict !== 'wrong') return [];
    const because = [index, ...agreement.readings.map((reading) => reading.index)];
    return [{ code: 'sensor-inaccurate', wheel, certainty: 'corroborated', because }];
  });

/** One sensor misses check-ins that the others make, by the counts over one drive. */
export const intermittence: Rule = (scene) => {
  const counts = allOf(scene.job, 'reception').filter(({ seen }) => seen.expected > 0);
  const latestById = new Map(counts.map((placed) => [canonicalId(placed.seen.id), placed]));
  const shares = [...latestById.values()].map((placed) => ({
    placed,
    share: placed.seen.received / placed.seen.expected,
  }));
  const best = Math.max(0, ...shares.map(({ share }) => share));
  return shares
    .filter(({ share }) => share < best - missedShare)
    .map(({ placed }) => {
      const wheel = wheelOfId(scene, placed.seen.id);
      return {
        code: 'sensor-intermittent',
        ...(wheel && { wheel }),
        certainty: 'corroborated',
        because: [placed.index],
      };
    });
};

/** Where a sensor is: where the tool heard it, else where the car or the records have it. */
function wheelOfId(scene: Scene, id: string): Position | undefined {
  return (
    heard(scene).find(({ reply }) => sameId(reply.id, id))?.wheel ??
    scene.ledger.registry?.seen.entries.find((entry) => entry.id !== null && sameId(entry.id, id))?.wheel ??
    scene.job.sensors?.find((sensor) => sameId(sensor.id, id))?.wheel
  );
}

/** The wheels where one sensor answered clearly. */
export function heard(scene: Scene) {
  return scene.wheels.flatMap((wheel) => {
    const scan = scene.ledger.sensor[wheel];
    return scan?.kind === 'heard'
      ? [{ wheel, index: scan.at.index, at: scan.at.seen.at, reply: scan.reply }]
      : [];
  });
}
