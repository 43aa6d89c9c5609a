import { clearlyStrongerDb } from '../../ledger';
import { doublyRegistered } from '../../registration';
import { canonicalId, sameId } from '../../sensor-id';
import type { Rule, Statement } from '../scene';
import { heard } from './sensors';

/** Two replies under one ID further apart than this, kPa, come from two sensors. */
const twoSensorsKPa = 10;

/** What the car holds against what the tool heard, wheel by wheel. */
export const registration: Rule = (scene) => {
  const { registry } = scene.ledger;
  if (!registry) return [];
  return scene.mismatches.flatMap(({ wheel, kind }): Statement[] => {
    const scan = scene.ledger.sensor[wheel];
    if (!scan) return [];
    const because = [scan.at.index, registry.index];
    switch (kind) {
      case 'absent':
        return [{ code: 'id-not-registered', wheel, certainty: 'corroborated', because }];
      case 'mistyped':
        return [{ code: 'id-mistyped', wheel, certainty: 'corroborated', because }];
      case 'elsewhere':
        return []; // a matter of positions
    }
  });
};

/** None of the sensors heard is registered, and what is registered is the vehicle's other wheel set. */
export const otherSet: Rule = (scene) => {
  const { registry } = scene.ledger;
  const sensors = heard(scene);
  const held = registry?.seen.entries.flatMap(({ id }) => (id === null ? [] : [id])) ?? [];
  const set = scene.job.otherSets?.find(({ ids }) => {
    const known = held.filter((id) => ids.some((other) => sameId(other, id)));
    return known.length > 0 && known.length * 2 > held.length;
  });
  const noneHeld = sensors.every(({ reply }) => !held.some((id) => sameId(id, reply.id)));
  return registry && set && sensors.length > 0 && noneHeld
    ? [
        {
          code: 'other-set-registered',
          certainty: 'corroborated',
          because: [registry.index, ...sensors.map(({ index }) => index)],
        },
      ]
    : [];
};

/** The scan at a wheel heard several sensors and none clearly, or one that is at another wheel. */
export const crossRead: Rule = (scene) => {
  const unclear = scene.wheels.flatMap((wheel): Statement[] => {
    const scan = scene.ledger.sensor[wheel];
    return scan?.kind === 'unclear'
      ? [{ code: 'cross-read', wheel, certainty: 'measured', because: [scan.at.index] }]
      : [];
  });
  return [...unclear, ...sharedIds(scene).filter(({ code }) => code === 'cross-read')];
};

/** One ID held at two positions of the car, or sent by two sensors. */
export const duplicates: Rule = (scene) => {
  const { registry } = scene.ledger;
  const held = registry
    ? doublyRegistered(scene.ledger)
        .flat()
        .map((wheel): Statement => ({
          code: 'id-duplicate',
          wheel,
          certainty: 'measured',
          because: [registry.index],
        }))
    : [];
  return [...held, ...sharedIds(scene).filter(({ code }) => code === 'id-duplicate')];
};

/**
 * One ID heard at two wheels: two sensors, if their pressures differ as no single one could; else one,
 * heard at its neighbour too, where the weaker answer was.
 */
const sharedIds: Rule = (scene) => {
  const sensors = heard(scene);
  return sensors.flatMap((one, place) =>
    sensors.slice(place + 1).flatMap((other): Statement[] => {
      if (canonicalId(one.reply.id) !== canonicalId(other.reply.id)) return [];
      const because = [one.index, other.index];
      const state = (code: Statement['code'], wheels: (typeof one)[]): Statement[] =>
        wheels.map(({ wheel }) => ({ code, wheel, certainty: 'corroborated', because }));
      const apart = Math.abs((one.reply.kPa ?? Number.NaN) - (other.reply.kPa ?? Number.NaN));
      if (apart > twoSensorsKPa) return state('id-duplicate', [one, other]);
      const lead = (one.reply.rssiDbm ?? Number.NaN) - (other.reply.rssiDbm ?? Number.NaN);
      if (lead >= clearlyStrongerDb) return state('cross-read', [other]);
      if (lead <= -clearlyStrongerDb) return state('cross-read', [one]);
      return state('cross-read', [one, other]);
    }),
  );
};
