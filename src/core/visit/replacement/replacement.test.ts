import { describe, expect, it } from 'vitest';
import { gauges, heard, jobWith, minute, registry, scans, silent } from '../../../../tests/support/car';
import { assess } from '../../judgement/diagnosis';
import type { Job } from '../../job';
import { aliveAfter } from '../../sensor/life';
import { roadWheels } from '../../names/wheel';
import { adviseReplacement, nextReplacementStep } from '.';
import { adviceWords, replacementWords, wornWords } from './words';

const deadRR = [
  ...gauges(1),
  ...scans(2, { RR: [silent(2, 'RR'), silent(3, 'RR', 'continuous'), silent(4, 'RR', 'magnet')] }),
  registry(5),
];
const aged = (years: number) =>
  roadWheels.map((wheel, at) => ({ id: `4C31A20${at}`, wheel, ageYears: years }));
const advice = (job: Job, tiresOff = false) =>
  adviseReplacement(job, { assessment: assess(job), tiresOff, year: 2026 });

describe('how long a sensor lasts', () => {
  it('is five to ten years for most (common practice)', () => {
    expect(aliveAfter(0)).toBe(1);
    expect(aliveAfter(5)).toBeGreaterThan(0.9);
    expect(aliveAfter(10)).toBeLessThan(0.25);
  });
});

describe('one or all', () => {
  it('at six years and with new tires going on is the set (common practice)', () => {
    const job = jobWith(deadRR, { sensors: aged(6) });
    expect(advice(job, true)).toMatchObject({ choice: 'set', wheels: roadWheels });
  });

  it('is the one alone while the tires stay on', () => {
    const job = jobWith(deadRR, { sensors: aged(6) });
    expect(advice(job)).toMatchObject({ choice: 'one', wheels: ['RR'] });
    expect(adviceWords(advice(job))).toBe('Replace RR alone.');
  });

  it('is the one alone while the others are young, whatever comes off', () => {
    expect(advice(jobWith(deadRR, { sensors: aged(2) }), true)).toMatchObject({ wheels: ['RR'] });
  });

  it('takes one off for its age alone where its end is near', () => {
    const found = advice(jobWith(deadRR, { sensors: aged(10) }));
    expect(found).toMatchObject({ choice: 'set' });
    expect(adviceWords(found)).toBe('Replace the set: LF, RF and LR will probably end within a year.');
    expect(advice(jobWith(deadRR, { sensors: aged(8) }))).toMatchObject({ wheels: ['RR'] });
  });

  it('counts a battery that says itself that it ends', () => {
    const job = jobWith(
      [...gauges(1), ...scans(2, { LF: [heard(2, 'LF', { battery: 'low' })] }), registry(5)],
      {
        sensors: aged(3),
      },
    );
    expect(advice(job)).toMatchObject({ choice: 'one', wheels: ['LF'] });
  });

  it('says so where the age is only that of the car, and advises nothing of ages nobody knows', () => {
    const old = jobWith(deadRR, { sensors: [] });
    const ofYear = (modelYear: number | undefined) => ({ ...old, vehicle: { ...old.vehicle, modelYear } });
    const ofCar = advice(ofYear(2016), true);
    expect(ofCar.sensors.map(wornWords)[0]).toContain('10 years, as the car');
    expect(advice(ofYear(2012))).toMatchObject({ wheels: ['RR'] });
    const unknown = advice(ofYear(undefined), true);
    expect(unknown).toMatchObject({ choice: 'one', wheels: ['RR'] });
    expect(unknown.sensors.map(wornWords)).toEqual(Array(4).fill('age not known'));
  });

  it('speaks for nothing on a car in order', () => {
    const job = jobWith([...gauges(1), ...scans(2), registry(5)], { sensors: aged(2) });
    expect(adviceWords(advice(job))).toBe('Nothing speaks for replacing a sensor now.');
  });
});

describe('what was chosen', () => {
  const chosen = {
    at: minute(10),
    by: 'Ines',
    wheels: ['RR' as const],
    declined: ['LF' as const],
    note: 'Autumn.',
  };
  const write = {
    key: 'w',
    kind: 'sensor' as const,
    wheel: 'RR' as const,
    mode: 'new' as const,
    askedAt: minute(12),
    asked: { id: '90FFE0A1' },
    answer: 'yes' as const,
    readBackAt: minute(13),
    readBack: { id: '90FFE0A1' },
  };
  const fitted = { key: 's', wheel: 'RR' as const, at: minute(20), done: [] };

  it('leads from the cradle to the wheel, and is done once the wheel was woken', () => {
    const job = jobWith(deadRR, { replacement: chosen });
    expect(nextReplacementStep(job)).toEqual({ do: 'program', wheel: 'RR' });
    const written = { ...job, carWrites: [write] };
    expect(nextReplacementStep(written)).toEqual({ do: 'service', wheel: 'RR' });
    const inWheel = { ...written, sensorServices: [fitted] };
    expect(nextReplacementStep(inWheel)).toEqual({ do: 'wake', wheel: 'RR' });
    const woken = { ...inWheel, observations: [...job.observations, heard(21, 'RR')] };
    expect(nextReplacementStep(woken)).toBeUndefined();
  });

  it('needs no cradle where the sensor comes ready', () => {
    const job = jobWith(deadRR, { replacement: chosen, sensorServices: [fitted] });
    expect(nextReplacementStep(job)).toEqual({ do: 'wake', wheel: 'RR' });
  });

  it('is given up where it was declined afterwards', () => {
    const declined = { ...fitted, declined: 'Too dear.' };
    expect(nextReplacementStep(jobWith(deadRR, { replacement: chosen, sensorServices: [declined] }))).toBe(
      undefined,
    );
  });

  it('stands on the sheet with what was declined', () => {
    expect(replacementWords(chosen)).toBe(
      'Sensors chosen to be replaced: RR. Advised and declined: LF. Autumn.',
    );
  });
});
