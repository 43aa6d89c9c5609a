import { describe, expect, it } from 'vitest';
import { figuresIn } from '../../measure/figure';
import {
  blamesNothing,
  commonness,
  faults,
  faultsOf,
  findingCodes,
  partKinds,
  recordOf,
  stakesOf,
  titleOf,
  wheelFindings,
} from '.';

describe('the catalogue of findings', () => {
  it('has a title and a sentence that says what to do for every finding', () => {
    for (const code of findingCodes) {
      expect(recordOf(code).title.length, code).toBeGreaterThan(5);
      expect(recordOf(code).action, code).toMatch(/^[A-Z].*\.$/);
    }
  });

  it('never offers to switch monitoring off', () => {
    const all = findingCodes.map((code) => `${recordOf(code).title} ${recordOf(code).action}`);
    expect(all.filter((text) => /switch.* off|disable|bypass|defeat|code out/i.test(text))).toEqual([]);
  });

  it('names the wheels in walking order', () => {
    expect(titleOf({ code: 'tire-low', wheels: ['LF', 'RR'] })).toBe('Tire low: LF and RR');
    expect(titleOf({ code: 'receiver-fault', wheels: [] })).toBe('The car hears nothing');
  });

  it('knows which findings blame nothing, and reads them last', () => {
    expect(findingCodes.filter(blamesNothing)).toEqual(['sensors-asleep', 'waiting-for-drive', 'no-fault']);
  });

  it('says of each number where it comes from and why', () => {
    const numbers = findingCodes.flatMap((code) => {
      const { prior, after, stakes, asked } = recordOf(code);
      return figuresIn({
        ...(prior && { prior }),
        after: after ?? {},
        stakes: stakes ?? {},
        asked: asked ?? {},
      });
    });
    expect(numbers.length).toBeGreaterThan(150);
    for (const { path, figure } of numbers) {
      expect(Number.isFinite(figure.value), path).toBe(true);
      expect(figure.why.length, path).toBeGreaterThan(2);
    }
  });

  it('asks nothing whose answer could not change what is done, and answers yes oftener where it is true', () => {
    for (const code of findingCodes) {
      const answers = Object.values(recordOf(code).asked ?? {});
      if (answers.length > 0) expect(stakesOf(code), code).toBeDefined();
      for (const { ifTrue, ifFalse } of answers) expect(ifTrue.value, code).toBeGreaterThan(ifFalse.value);
    }
  });

  it('gives each fault of a part one part, and each part its faults', () => {
    expect([...partKinds.flatMap(faultsOf)].sort()).toEqual([...faults].sort());
    for (const code of faults) {
      expect(commonness(code).prior, code).toBeGreaterThan(0);
      expect(commonness(code).prior, code).toBeLessThan(0.05);
      expect(commonness(code).after('none')).toBe(1);
    }
  });

  it('cautions wherever a wheel is worked on, and sums by wheel only what is said of a wheel', () => {
    for (const code of findingCodes) {
      const { remedy, scope, caution, summedWith } = recordOf(code);
      if (remedy === 'part' && scope === 'sensor') expect(caution, code).toBe('wheel-work');
      if (summedWith) expect(scope, code).not.toBe('car');
    }
    // They are bits of one number.
    expect(wheelFindings.length).toBeLessThan(30);
  });
});
