import { describe, expect, it } from 'vitest';
import { stepSchema } from '../../../core/relearn/procedure/schema';
import { at, emptyDraft, newSteps, procedureFrom, withAt, wrongIn } from './draft';

describe('a procedure while it is written', () => {
  it('says what is missing, in words of the trade, until it makes sense', () => {
    const missing = wrongIn(emptyDraft).map(({ path }) => path);
    expect(missing).toEqual(expect.arrayContaining(['name', 'title']));
    expect(new Set(wrongIn(emptyDraft).map(({ message }) => message))).toEqual(new Set(['fill this in']));
    const written = withAt(withAt(emptyDraft, ['name'], 'mine'), ['title'], 'Mine');
    expect(wrongIn(written)).toEqual([
      { path: 'wheels', message: expect.stringMatching(/no step/) as string },
    ]);
    const named = withAt(written, ['each'], [{ do: 'wake' }]);
    expect(wrongIn(named)).toEqual([]);
    expect(procedureFrom(named)).toMatchObject({ name: 'mine', proof: ['registry'] });
    const least = withAt(named, ['enter'], [{ do: 'hold', what: 'button', leastS: 9, mostS: 3 }]);
    expect(wrongIn(least)).toEqual([
      { path: 'enter.0.leastS', message: expect.stringMatching(/above the most/) as string },
    ]);
    expect(procedureFrom(least)).toBeUndefined();
    expect(wrongIn(withAt(least, ['enter', 0, 'leastS'], 'four'))).toEqual([
      { path: 'enter.0.leastS', message: 'fill this in' },
    ]);
  });

  it('begins every kind of step as one that needs at most a name or a place to be filled in', () => {
    for (const [kind, step] of Object.entries(newSteps)) {
      const parsed = stepSchema.safeParse(step);
      const open = parsed.success ? [] : parsed.error.issues.map(({ path }) => path.join('.'));
      expect(open, kind).toEqual({ hold: ['what'], menu: ['path'] }[kind] ?? []);
    }
  });

  it('is changed at one place, and what stands elsewhere stays', () => {
    const draft = {
      limits: { enterS: 60 },
      enter: [
        { do: 'wait', s: 1 },
        { do: 'wait', s: 2 },
      ],
    };
    expect(withAt(draft, ['enter', 1, 's'], 9)).toEqual({
      ...draft,
      enter: [draft.enter[0], { do: 'wait', s: 9 }],
    });
    expect(withAt(draft, ['limits', 'wheelS'], 30).limits).toEqual({ enterS: 60, wheelS: 30 });
    expect(withAt(draft, ['limits', 'enterS'], undefined).limits).toEqual({});
    expect(at(draft, ['enter', 1, 's'])).toBe(2);
    expect(at(draft, ['finish', 3, 's'])).toBeUndefined();
    expect(draft.enter[1]?.s).toBe(2);
  });
});
