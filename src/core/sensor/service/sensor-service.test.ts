import { describe, expect, it } from 'vitest';
import { jobWith, minute } from '../../../../tests/support/car';
import { partSchema } from '../part/schema';
import { expectedPrint, openSteps, serviceOf, serviceSteps, serviceWords, stepInstruction } from '.';
import type { SensorService } from '../../job/schemas/sensor-service';

const service = (more: Partial<SensorService> = {}): SensorService => ({
  key: 'one',
  wheel: 'RR',
  at: minute(3),
  done: [...serviceSteps],
  ...more,
});
const part = (more: object) =>
  partSchema.parse({
    name: 'P',
    title: 'P',
    kind: 'universal',
    formats: [{ family: 'kestrel', frequencyMHz: 433.92 }],
    stem: 'metal',
    ...more,
  });

describe('the service of a sensor', () => {
  it('goes in the order of hands: let down before the bead, the ID before the tire goes on, leaks before balancing', () => {
    const before = (one: string, other: string) =>
      serviceSteps.findIndex((step) => step === one) < serviceSteps.findIndex((step) => step === other);
    expect(before('deflated', 'bead')).toBe(true);
    expect(before('bead', 'stem')).toBe(true);
    expect(before('stem', 'sensor')).toBe(true);
    expect(before('printed-id', 'mounted')).toBe(true);
    expect(before('inflated', 'tight')).toBe(true);
    expect(before('tight', 'balanced')).toBe(true);
  });

  it('names torque and kit of the part, and the maker’s where none is on file', () => {
    const metal = part({ torque: { nutNm: 5, coreNm: 0.4 }, kit: 'K1' });
    expect(stepInstruction('stem', metal)).toMatch(/stem nut 5 Nm/);
    expect(stepInstruction('inflated', metal)).toMatch(/core 0.4 Nm/);
    expect(stepInstruction('kit', metal)).toMatch(/kit K1/);
    expect(stepInstruction('sensor', metal)).toMatch(/maker/);
    expect(stepInstruction('stem', part({ stem: 'rubber' }))).toMatch(/tears/);
    for (const step of serviceSteps) expect(stepInstruction(step, undefined)).not.toMatch(/\d Nm|undefined/);
  });

  it('says on the sheet what was confirmed, and how much was not', () => {
    expect(serviceWords(service({ part: 'P', kit: 'K1', torqueNm: { nut: 5 }, printedId: '4b07c2d1' }))).toBe(
      'Sensor at RR serviced, part P, kit K1, stem nut 5 Nm, printed ID 4B07 C2D1.',
    );
    expect(serviceWords(service({ done: ['deflated'] }))).toBe(
      'Sensor at RR serviced, 11 of 12 steps not confirmed.',
    );
    expect(serviceWords(service({ declined: 'Too dear.' }))).toMatch(/declined.*lamp stays on/);
    expect(openSteps(service())).toEqual([]);
  });

  it('of one wheel the last holds', () => {
    const job = jobWith([], {
      sensorServices: [service(), service({ key: 'two', part: 'Q' }), service({ wheel: 'LF' })],
    });
    expect(serviceOf(job, 'RR')?.key).toBe('two');
    expect(serviceOf(job, 'LR')).toBeUndefined();
  });

  it('expects on a clone the old ID in print only as what it was programmed with, and nothing of a new one', () => {
    const write = (mode: 'clone' | 'new') => ({
      kind: 'sensor' as const,
      key: 'w',
      askedAt: minute(1),
      mode,
      wheel: 'RR' as const,
      asked: { id: '4B07C2D1' },
      readBackAt: minute(2),
      readBack: { id: '4B07C2D1' },
    });
    expect(expectedPrint(jobWith([], { carWrites: [write('clone')] }), 'RR')).toBe('4B07C2D1');
    expect(expectedPrint(jobWith([], { carWrites: [write('new')] }), 'RR')).toBeUndefined();
    expect(expectedPrint(jobWith([]), 'RR')).toBeUndefined();
  });
});
