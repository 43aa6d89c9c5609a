import { describe, expect, it } from 'vitest';
import { gauge, heard, lamp, live, minute, registry, silent } from '../../../../tests/support/car';
import { metric } from '../../measure/units';
import { percent, sureness } from '../../judgement/assessment/words';
import type { Observation } from '../../job';
import { observationSchema } from '../../job/schema';
import { cellsOf, describe as inWords, observationKinds } from '.';

const psi = { ...metric, pressure: 'psi' as const, temperature: '°F' as const };
const at = minute(0);

describe('an observation in words', () => {
  it.each<[Observation, string]>([
    [lamp(0, 'steady'), 'Lamp on, steady'],
    [lamp(0, 'off', false), 'Lamp off, no check at ignition on'],
    [gauge(0, 'LF', 231), 'Gauge at LF reads 231 kPa, cold'],
    [
      gauge(0, 'LF', 231, { tire: 'warm', tireC: 33, trusted: false }),
      'Gauge at LF reads 231 kPa, warm at 33 °C, gauge not trusted',
    ],
    [heard(0, 'RR'), 'RR answers 4B11 E0F6: 220 kPa, 433.92 MHz, kestrel'],
    [heard(0, 'RR', { battery: 'low' }), 'RR answers 4B11 E0F6: 220 kPa, 433.92 MHz, kestrel, battery low'],
    [silent(0, 'RR', 'continuous'), 'RR silent to the continuous trigger'],
    [registry(0, { LR: null }), 'Car holds LF 4B07 C2D1, RF 4B07 D93A, RR 4B11 E0F6, LR none'],
    [live(0, 'LF', 231, 62), 'Car has 231 kPa from LF at 62 km/h'],
    [live(0, 'LF', null, 0), 'Car has nothing from LF at 0 km/h'],
    [{ kind: 'display', at, wheel: 'LF', kPa: 171 }, 'Display shows 171 kPa at LF'],
    [{ kind: 'display', at, wheel: 'LF', kPa: null }, 'Display shows nothing at LF'],
    [
      { kind: 'dtc', at, code: 'C1B31', status: 'active', about: 'no-signal', wheel: 'RR' },
      'Code C1B31 active: no signal, RR',
    ],
    [{ kind: 'dtc', at, code: 'C1FFF', status: 'stored' }, 'Code C1FFF stored: meaning not known'],
    [{ kind: 'reception', at, id: '4B11E0F6', expected: 30, received: 18 }, '4B11 E0F6 heard 18 of 30 times'],
    [{ kind: 'wheelspeed', at, wheel: 'RF', ratio: 1.004 }, 'RF turns 0.40 % faster than the mean'],
    [{ kind: 'voltage', at, volts: 11.84, engine: 'off' }, 'Supply 11.8 V, engine off'],
    [
      { kind: 'relearn', at, method: 'write', outcome: 'waiting-for-drive' },
      'Relearn by write: waiting for drive',
    ],
    [{ kind: 'visual', at, wheel: 'LR', sign: 'object' }, 'LR: object in the tread'],
  ])('%#: reads as a technician would say it', (seen, words) => {
    expect(inWords(seen, metric)).toBe(words);
  });

  it('follows the units of whoever reads it', () => {
    expect(inWords(gauge(0, 'LF', 220.632, { tireC: 10 }), psi)).toBe(
      'Gauge at LF reads 32.0 psi, cold at 50 °F',
    );
  });

  it('counts several answers instead of naming one', () => {
    const two: Observation = {
      kind: 'activation',
      at,
      wheel: 'LF',
      trigger: 'pulsed',
      replies: [{ id: 'A1' }, { id: 'B2' }],
    };
    expect(inWords(two, metric)).toBe('2 sensors answered at LF');
  });
});

describe('how sure', () => {
  it('has a word and a figure', () => {
    expect([0.98, 0.95, 0.85, 0.5].map(sureness)).toEqual(['Sure', 'Very likely', 'Likely', 'Possible']);
    expect(percent(0.954)).toBe('95 %');
  });
});

describe('a kind of observation', () => {
  it('is known to the catalogue if the schema of the job file knows it', () => {
    const inSchema = observationSchema.options.map(({ shape }) => shape.kind.value);
    expect([...observationKinds].sort()).toEqual([...inSchema].sort());
  });

  it('stands in the ledger at the wheels it speaks of', () => {
    expect(cellsOf(gauge(0, 'LF', 231))).toEqual([{ source: 'gauge', wheel: 'LF' }]);
    expect(cellsOf(silent(0, 'RR'))).toEqual([{ source: 'sensor', wheel: 'RR' }]);
    expect(cellsOf(registry(0)).map(({ wheel }) => wheel)).toEqual(['LF', 'RF', 'RR', 'LR']);
    expect(cellsOf(lamp(0, 'off'))).toEqual([]);
  });
});
