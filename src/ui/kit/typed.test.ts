import { describe, expect, it } from 'vitest';
import { figureOrEmpty, figureTyped } from './typed';

describe('a figure of a form', () => {
  const volts = (volt: number) => volt > 0 && volt <= 60;
  const read = (typed: string) => figureOrEmpty('Between 0 and 60 V.', volts).safeParse(typed);

  it('is read with a point, a comma, blanks around it and a minus of either kind', () => {
    expect(read(' 12.6 ').data).toBe(12.6);
    expect(read('12,6').data).toBe(12.6);
    expect(figureTyped('A figure.', Number.isFinite).parse('−0,4')).toBe(-0.4);
  });

  it('is nothing where nothing is typed, and told in one sentence where it does not fit or must be there', () => {
    expect(read('  ')).toEqual({ success: true, data: undefined });
    for (const typed of ['61', '0', 'twelve', '1.2.3'])
      expect(read(typed).error?.issues.map(({ message }) => message)).toEqual(['Between 0 and 60 V.']);
    const needed = figureTyped('Between 0 and 60 V.', volts).safeParse('');
    expect(needed.error?.issues.map(({ message }) => message)).toEqual(['Between 0 and 60 V.']);
  });
});
