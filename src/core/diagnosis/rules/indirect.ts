import { allOf } from '../../job';
import { placardKPa, placardToleranceKPa } from '../../placard';
import { roadWheels } from '../../wheel';
import type { Rule, Statement } from '../scene';

/** A wheel this much faster or slower than the mean is of another radius (contract of the assessment). */
const oddRatio = 0.002;

/** Work after which an indirect system must store its reference again. */
const disturbs = ['tires-fitted', 'rotation', 'wheels-swapped', 'repair'];

/** The reference was not stored again since tires or pressures changed. */
export const baseline: Rule = ({ job, ledger }) => {
  if (job.vehicle.tpms.kind !== 'indirect') return [];
  const stored = ledger.relearn?.seen.method === 'reset' && ledger.relearn.seen.outcome === 'done';
  if (stored) return [];
  const code = ledger.codes.find(({ seen }) => seen.about === 'baseline');
  if (code) return [{ code: 'baseline-not-set', certainty: 'corroborated', because: [code.index] }];
  const { lamp } = ledger;
  const gauges = roadWheels.flatMap((wheel) => ledger.gauge[wheel] ?? []);
  const allWell =
    gauges.length === roadWheels.length &&
    gauges.every(
      ({ seen }) => Math.abs(seen.kPa - (placardKPa(job, seen.wheel) ?? Number.NaN)) <= placardToleranceKPa,
    );
  const filled = roadWheels.some((wheel) => (ledger.gaugeHistory[wheel]?.length ?? 0) > 1);
  const changed = disturbs.includes(job.service?.kind ?? 'none') || filled;
  return lamp?.seen.state === 'steady' && !lamp.seen.otherLamps?.length && allWell && changed
    ? [
        {
          code: 'baseline-not-set',
          certainty: 'inferred',
          because: [lamp.index, ...gauges.map(({ index }) => index)],
        },
      ]
    : [];
};

/** The wheel-speed sensors it lives on are down: a code, or the ABS or stability lamp beside it. */
export const wheelSpeed: Rule = ({ job, ledger }) => {
  if (job.vehicle.tpms.kind !== 'indirect') return [];
  const code = ledger.codes.find(({ seen }) => seen.about === 'wheel-speed');
  const lamp =
    ledger.lamp?.seen.otherLamps?.length && ledger.lamp.seen.state !== 'off' ? ledger.lamp : undefined;
  if (!code && !lamp) return [];
  const because = [code, lamp].flatMap((placed) => (placed ? [placed.index] : []));
  const wheel = code?.seen.wheel;
  return [
    {
      code: 'wheel-speed-sensor-fault',
      ...(wheel && { wheel }),
      certainty: code && lamp ? 'corroborated' : 'inferred',
      because,
    },
  ];
};

/** One wheel turns faster or slower than the others and its pressure does not explain it. */
export const rollingRadius: Rule = ({ job, ledger }) => {
  if (job.vehicle.tpms.kind !== 'indirect') return [];
  return roadWheels.flatMap((wheel): Statement[] => {
    const turns = allOf(job, 'wheelspeed').findLast(({ seen }) => seen.wheel === wheel);
    const gauge = ledger.gauge[wheel];
    const cold = placardKPa(job, wheel);
    if (!turns || !gauge || cold === undefined) return [];
    const odd = Math.abs(turns.seen.ratio - 1) >= oddRatio - 1e-9;
    const atPlacard = Math.abs(gauge.seen.kPa - cold) <= placardToleranceKPa;
    return odd && atPlacard
      ? [{ code: 'rolling-radius-off', wheel, certainty: 'inferred', because: [turns.index, gauge.index] }]
      : [];
  });
};
