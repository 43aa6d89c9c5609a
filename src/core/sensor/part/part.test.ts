import { describe, expect, it } from 'vitest';
import { jobWith } from '../../../../tests/support/car';
import { doubtsAbout, formatFor, partsFor, type Part } from '.';
import { partSchema } from './schema';
import { doubtWords, torqueWords } from './words';

const part = (name: string, more: object = {}): Part =>
  partSchema.parse({
    name,
    title: `Sensor ${name}`,
    kind: 'universal',
    formats: [{ family: 'kestrel', frequencyMHz: 433.92 }],
    stem: 'metal',
    ...more,
  });
const made = (profile: string, years: object = {}) => ({
  kind: 'ready',
  for: { profiles: [profile], ...years },
});
const catalogue = [
  part('ANY'),
  part('OTHER', { formats: [{ family: 'plover', frequencyMHz: 315 }] }),
  part('OLD', made('vela', { toYear: 2019 })),
  part('NEW', made('vela', { fromYear: 2020 })),
  part('CARGA', made('carga')),
];
const vela = (vehicle: object = {}) => {
  const job = jobWith([]);
  return { ...job, vehicle: { ...job.vehicle, profile: 'vela', ...vehicle } };
};
const names = (parts: readonly Part[]) => parts.map(({ name }) => name);

describe('the parts for a car', () => {
  it('are those it hears, of its year, the ones made for it first', () => {
    expect(names(partsFor(catalogue, vela({ modelYear: 2018 })))).toEqual(['OLD', 'ANY']);
    expect(names(partsFor(catalogue, vela({ modelYear: 2020 })))).toEqual(['NEW', 'ANY']);
    expect(names(partsFor(catalogue, vela()))).toEqual(['NEW', 'OLD', 'ANY']);
    expect(names(partsFor(catalogue, { ...vela(), vehicle: { tpms: { kind: 'direct' } } }))).toEqual([
      'ANY',
      'OTHER',
    ]);
  });

  it('are programmed as the car hears them', () => {
    const both = part('BOTH', {
      formats: [
        { family: 'plover', frequencyMHz: 315 },
        { family: 'Kestrel', frequencyMHz: 434 },
      ],
    });
    expect(formatFor(both, jobWith([]).vehicle.tpms)).toMatchObject({ family: 'Kestrel' });
    expect(
      formatFor(
        part('X', { formats: [{ family: 'dunlin', frequencyMHz: 433.92 }] }),
        jobWith([]).vehicle.tpms,
      ),
    ).toBeUndefined();
  });

  it('carry their torque in the order of hands, and nothing where it is not on file', () => {
    expect(torqueWords(part('X', { torque: { nutNm: 5, coreNm: 0.4, screwNm: 1.4 } }))).toEqual([
      'sensor screw 1.4 Nm',
      'stem nut 5 Nm',
      'core 0.4 Nm',
    ]);
    expect(torqueWords(part('X'))).toEqual([]);
  });
});

describe('a doubt about the part', () => {
  it('a year break where VIN and job say different years: both are shown', () => {
    // The tenth character of a VIN is the model year: K is 2019, L is 2020 (49 CFR 565.15 table VII, from memory).
    const of = (vin: string) => doubtsAbout(catalogue, vela({ modelYear: 2019, vin }));
    const [doubt] = of('0HAVE1A96L1004417');
    expect(doubt).toMatchObject({ kind: 'year', entered: 2019, byVin: 2020 });
    expect(doubt && names(doubt.parts)).toEqual(['NEW', 'ANY']);
    expect(doubt && doubtWords(doubt)).toMatch(/2019.*2020.*door plate/);
    expect(of('0HAVE1A96K1004417')).toEqual([]);
    // Another year on the same side of the break changes nothing.
    expect(of('0HAVE1A96J1004417')).toEqual([]);
  });

  it('a sensor heard at the wheel that the car does not hear', () => {
    const [doubt] = doubtsAbout(catalogue, vela({ modelYear: 2019 }), {
      family: 'plover',
      frequencyMHz: 315,
    });
    expect(doubt && names(doubt.parts)).toEqual(['OTHER']);
    expect(doubt && doubtWords(doubt)).toMatch(/plover, 315 MHz/);
    expect(doubtsAbout(catalogue, vela(), { family: 'kestrel', frequencyMHz: 433.92 })).toEqual([]);
    expect(doubtsAbout(catalogue, vela(), {})).toEqual([]);
  });
});
