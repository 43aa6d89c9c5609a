import type { Job } from '../src/core/job';
import { parseJob } from '../src/core/job/schema';
import { direct } from '../tests/support/car';

/**
 * A made-up job with all there is to see: five wheels with sensors, stems looked at, gauged, woken, the car
 * read and driven, another wheel set on file, a fall in temperature. In trouble: one sensor silent, two
 * wheels changed places, one tire short.
 */
export function fullJob(inTrouble: boolean): Job {
  const wheels = ['LF', 'RF', 'RR', 'LR', 'SP'] as const;
  const ids = ['4B07C2D1', '4B07C2E8', '4B07C319', '4B07C2F4', '4B07C305'];
  const held = inTrouble ? [ids[1], ids[0], ...ids.slice(2)] : ids;
  const kPa = [228, 231, inTrouble ? 190 : 219, 221, 229];
  let minute = 0;
  const at = () => new Date(Date.UTC(2026, 2, 3, 9, (minute += 1))).toISOString();
  const woken = wheels.flatMap((wheel, place): unknown[] => {
    const wake = (trigger: string, replies: unknown[]) => ({
      kind: 'activation',
      at: at(),
      wheel,
      trigger,
      replies,
    });
    if (inTrouble && wheel === 'LR') return [wake('pulsed', []), wake('continuous', [])];
    const reply = { id: ids[place], kPa: (kPa[place] ?? 0) + 1, tempC: 4, frequencyMHz: 433.92 };
    return [wake('pulsed', [{ ...reply, family: 'kestrel', battery: 'ok', rssiDbm: -50 }])];
  });
  const code = { code: 'C1B34', status: 'active' };
  const job = parseJob({
    format: 'hacienda.job/1',
    vehicle: {
      label: 'Corriente Vela',
      modelYear: 2019,
      odometerKm: 80_000,
      tpms: { ...direct, positions: wheels },
    },
    placard: [
      { position: 'front', size: '215/55R17', coldKPa: 230 },
      { position: 'rear', size: '215/55R17', coldKPa: 220 },
      { position: 'spare', coldKPa: 230 },
    ],
    service: { kind: 'rotation', hoursAgo: 30 },
    climate: { nowC: 4, overnightLowC: -2, lastFillC: 24, altitudeM: 300, fillPolicy: 'ambient' },
    sensors: wheels.map((wheel, place) => ({ id: ids[place], wheel, ageYears: 6 })),
    otherSets: [{ label: 'winter', ids: ['51A00001', '51A00002', '51A00003', '51A00004'] }],
    observations: [
      { kind: 'lamp', at: at(), state: inTrouble ? 'flash-then-steady' : 'off', bulbCheck: true },
      ...wheels.map((wheel) => ({ kind: 'visual', at: at(), wheel, sign: 'stem-metal' })),
      ...wheels.map((wheel, place) => ({ kind: 'gauge', at: at(), wheel, kPa: kPa[place], tire: 'cold' })),
      ...woken,
      {
        kind: 'registry',
        at: at(),
        entries: wheels.map((wheel, place) => ({ wheel, id: held[place] })),
        codes: inTrouble ? [code] : [],
      },
      ...(inTrouble ? [{ kind: 'dtc', at: at(), ...code, about: 'no-signal', wheel: 'LR' }] : []),
      ...wheels.map((wheel, place) => ({
        kind: 'live',
        at: at(),
        wheel,
        kPa: inTrouble && wheel === 'LR' ? null : (kPa[held.indexOf(ids[place])] ?? 0) + 3,
        speedKmh: 60,
        tempC: 6,
      })),
      { kind: 'voltage', at: at(), volts: 12.6, engine: 'off' },
    ],
  });
  if (!job.ok) throw new Error(job.problem.message);
  return job.value;
}
