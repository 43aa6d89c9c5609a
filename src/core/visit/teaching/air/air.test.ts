import { describe, expect, it } from 'vitest';
import { jobWith } from '../../../../../tests/support/car';
import { procedureSchema } from '../../../relearn/procedure/schema';
import { fillFirst } from '.';

const taughtBy = (step: string, wheels: string[]) =>
  procedureSchema.parse({
    format: 'hacienda.procedure/1',
    name: 'made-up',
    title: 'Made up',
    method: 'air',
    wheels,
    each: [{ do: step }],
    proof: ['lamp'],
  });
const four = ['LF', 'RF', 'RR', 'LR'];

describe('how far tires are filled before air is let out of them', () => {
  it('follows the placard: about 260 where it says 230 (common practice), those alike together', () => {
    const job = jobWith([], {
      placard: [
        { position: 'front', coldKPa: 230 },
        { position: 'rear', coldKPa: 310 },
      ],
    });
    expect(fillFirst(job, taughtBy('air', four))).toEqual([
      { kPa: 260, wheels: ['LF', 'RF'] },
      { kPa: 340, wheels: ['RR', 'LR'] },
    ]);
  });

  it('is 260 where nobody knows the placard, and nothing where no air is let out', () => {
    expect(fillFirst(jobWith([], { placard: [] }), taughtBy('air', four))).toEqual([
      { kPa: 260, wheels: four },
    ]);
    expect(fillFirst(jobWith([]), taughtBy('wake', four))).toEqual([]);
  });
});
