import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  gauge,
  gauges,
  heard,
  jobWith,
  lamp,
  live,
  minute,
  registry,
  scans,
} from '../../../../tests/support/car';
import { findingsThatHold } from '../../judgement/assessment';
import { assessBriefly } from '../../judgement/diagnosis';
import type { Job } from '../../job';
import { roadWheels } from '../../names/wheel';
import { findingCodes, recordOf, type FindingCode } from '.';
import { adviceOn } from './advice';

/** What is advised of what holds, by code. */
const advised = (job: Job) =>
  Object.fromEntries(findingsThatHold(assessBriefly(job)).map(({ code, action }) => [code, action]));
const at = (code: FindingCode) => ({ code, wheels: ['LF'] });

describe('advice', () => {
  it('of a cold snap is to fill, and to look for no leak', () => {
    const down = roadWheels.map((wheel) => gauge(1, wheel, wheel === 'RF' ? 168 : 178));
    const said = advised(
      jobWith([...down, lamp(2, 'steady')], { climate: { nowC: -18, lastFillC: 20, altitudeM: 0 } }),
    );
    expect(said['temperature-drop']).toMatch(/^No leak/);
    for (const [code, action] of Object.entries(said))
      if (code !== 'temperature-drop') expect(action, code).not.toMatch(/leak/);
  });

  it('of a low tire with the supply down is to mend the supply before anything is written', () => {
    const seen = [
      ...scans(1, { RR: [heard(1, 'RR', { id: '90FFE0A1' })] }),
      registry(2),
      { kind: 'voltage' as const, at: '2026-10-14T14:05:00Z', volts: 11.4, engine: 'off' as const },
    ];
    const said = advised(jobWith(seen));
    expect(said['supply-voltage-low']).toMatch(/^Write nothing yet/);
    expect(said['id-not-registered']).toMatch(/^With the supply put right first/);
  });

  it('of a hot tire lets nothing out and fills nothing', () => {
    for (const code of ['tire-low', 'tire-underinflated', 'tire-overinflated', 'tire-leaking'] as const)
      expect(adviceOn(at(code), [at(code), at('tire-hot')])).toMatch(/cool/);
  });

  it('of a tire that stood nearly flat is the rim before air, and what was seen of it comes first', () => {
    const low = advised(jobWith([...gauges(1, { RR: 15 }), lamp(2, 'steady')]));
    expect(low['tire-low']).toMatch(/^Off the rim and looked at inside before air goes in/);
    const seen = (sign: 'object' | 'sidewall' | 'stem-damaged') =>
      advised(jobWith([...gauges(1, { RR: 149 }), { kind: 'visual', at: minute(2), wheel: 'RR', sign }]))[
        'tire-leaking'
      ];
    expect(seen('object')).toMatch(/what sits in the tread first/);
    expect(seen('sidewall')).toMatch(/not repaired: replace the tire/);
    expect(seen('stem-damaged')).toMatch(/^Renew the stem/);
  });

  it('of a tire that rolled hot and low is to let it cool, and to look inside before air goes in', () => {
    const said = advised(jobWith([...gauges(1, { RR: 120 }), heard(2, 'RR', { kPa: 120, tempC: 112 })]));
    expect(said['tire-low']).toMatch(
      /^Let it cool\..*off the rim and is looked at inside before air goes in/,
    );
  });

  it('asks for what was not done, and never for what was', () => {
    const seen = { isHeard: false, isWoken: true, isGauged: true, isNearFlat: false, signs: [] };
    const swapped = at('positions-swapped');
    expect(adviceOn(swapped, [swapped], seen)).not.toMatch(/Wake the wheels first/);
    expect(adviceOn(swapped, [swapped], { ...seen, isWoken: false })).toMatch(/^Wake the wheels first/);
    for (const code of ['tire-low', 'tire-underinflated', 'tire-overinflated'] as const)
      expect(adviceOn(at(code), [at(code)], { ...seen, isHeard: true, isGauged: false })).toMatch(
        /^Gauge it/,
      );
  });

  it('is to be read alone where nothing else holds', () => {
    for (const code of findingCodes) expect(adviceOn(at(code), [at(code)])).toBe(recordOf(code).action);
  });

  it('of two findings together never sends an ID that the other says not to send, nor finds a leak the other denies', () => {
    const codes = fc.uniqueArray(fc.constantFrom(...findingCodes), { minLength: 2, maxLength: 4 });
    fc.assert(
      fc.property(codes, (together) => {
        const holding = together.map(at);
        const said = holding.map((finding) => adviceOn(finding, holding)).join(' ');
        if (together.includes('sensor-wrong-type')) expect(said).not.toMatch(/Register the scanned IDs/);
        if (together.includes('temperature-drop') && !together.includes('tire-leaking'))
          expect(said.replace('No leak', '')).not.toMatch(/\bleak\b/);
        if (together.includes('tire-hot')) expect(said).not.toMatch(/(^|\. )(Fill to|Cold, let out)/);
      }),
      { numRuns: 300, seed: 17 },
    );
  });

  it('sends no ID that nobody has heard', () => {
    const none = roadWheels.map((wheel) => live(8, wheel, null, 60));
    const car: Partial<Job> = { service: { kind: 'wheels-swapped', hoursAgo: 40 } };
    const said = advised(jobWith([...gauges(1), ...none, lamp(9, 'flash-then-steady')], car));
    expect(said['id-not-registered']).toMatch(/^Wake the wheels first/);
  });

  it('lets no one fill and hand over a tire that leaks', () => {
    const said = advised(jobWith([...gauges(1), gauge(10, 'RF', 165)]));
    expect(said['tire-low']).toMatch(/Repair/);
  });
});
