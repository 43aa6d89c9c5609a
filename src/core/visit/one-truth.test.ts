import { describe, expect, it } from 'vitest';
import { gauge, gauges, heard, jobWith, lamp } from '../../../tests/support/car';
import { livedJob } from '../../../tests/support/lived-job';
import { findingsThatHold } from '../judgement/assessment';
import { assessBriefly } from '../judgement/diagnosis';
import { clausesFor } from '../judgement/diagnosis/explanation/reasons';
import { blamesNothing, recordOf, titleOf, type FindingCode } from '../catalogue/finding';
import { columnsOf } from './column';
import { proofOf } from './proof';
import { chanceFrom } from '../../simulation';
import { pushedOff, worlds } from '../../simulation/world';
import { metric, type Notation } from '../measure/units';
import { nextMove } from '.';
import { comesFirst, isCheck, shownOf } from './shown';

/** A thousand visits as they come about, judged: what is said of one of them never disagrees with itself. */
const chance = chanceFrom(20_261_201);
const off = pushedOff(chance);
const visits = Array.from({ length: 1000 }, (_, n) => {
  const job = livedJob(n % 2 ? worlds.fitting : worlds.plain, off, chance);
  const assessment = assessBriefly(job);
  const atHand = { hasTool: n % 3 > 0, hasLead: n % 5 > 0 };
  const move = nextMove(job, { assessment, handedOver: false, ...atHand });
  return { job, assessment, move, shown: shownOf(job, assessment, move) };
});

describe('of two figures that are compared in a sentence', () => {
  const said = (units: Notation) =>
    visits.flatMap(({ job, assessment }) =>
      findingsThatHold(assessment).flatMap((finding) =>
        clausesFor(job, finding, assessment.positions, units).map(({ words }) => ({
          words,
          code: finding.code,
        })),
      ),
    );
  /** What it is at the outdoor temperature, where that is said; else what was read. */
  const judgedBy = (words: string): number =>
    Number(
      (/, (\d[\d.]*\d|\d) at the outdoor/.exec(words) ??
        /(?:has|says|shows|had) (\d[\d.]*\d|\d)/.exec(words))?.[1],
    );
  const figuresIn = (words: string, pattern: RegExp): number[] =>
    pattern.exec(words)?.slice(1).map(Number) ?? [];

  /** Each way two figures are held against one another, and what makes it true. */
  const comparisons: {
    pattern: RegExp;
    holds: (figures: number[], words: string, code: FindingCode) => boolean;
  }[] = [
    {
      pattern: /where the lamp lights at (\d[\d.]*\d|\d)\.$/,
      holds: ([on = 0], words) => judgedBy(words) <= on,
    },
    {
      pattern: /where the placard asks for (\d[\d.]*\d|\d)\.$/,
      holds: ([asked = 0], words, code) =>
        code === 'tire-overinflated' ? judgedBy(words) > asked : judgedBy(words) < asked,
    },
    {
      pattern:
        /above (\d[\d.]*\d|\d), where the lamp lights, and short of (\d[\d.]*\d|\d), where it goes out/,
      holds: ([on = 0, out = 0], words) => judgedBy(words) > on && judgedBy(words) < out,
    },
    {
      pattern: /went from (\d[\d.]*\d|\d) to (\d[\d.]*\d|\d)/,
      holds: ([before = 0, after = 0]) => after < before,
    },
    {
      pattern: /(?:says|shows) (\d[\d.]*\d|\d)(?: for ..)? where the gauge says (\d[\d.]*\d|\d)/,
      holds: ([one, other]) => one !== other,
    },
    {
      pattern: /is shown with (\d[\d.]*\d|\d) where its gauge says (\d[\d.]*\d|\d)/,
      holds: ([one, other]) => one !== other,
    },
    {
      pattern:
        /The gauge says (\d[\d.]*\d|\d) at .. where .+ shows (\d[\d.]*\d|\d), and .. really has (\d[\d.]*\d|\d)/,
      holds: ([here = 0, shown = 0, there = 0]) => Math.abs(shown - there) < Math.abs(shown - here),
    },
  ];

  it.each([
    ['kPa', metric],
    ['psi', { ...metric, pressure: 'psi' as const }],
  ])('the comparison holds, in %s', (_, units) => {
    const counted = comparisons.map(() => 0);
    for (const { words, code } of said(units)) {
      comparisons.forEach(({ pattern, holds }, place) => {
        if (!pattern.test(words)) return;
        counted[place] = (counted[place] ?? 0) + 1;
        expect(holds(figuresIn(words, pattern), words, code), `${code}: ${words}`).toBe(true);
      });
    }
    // Each kind was met, or the check would say nothing.
    expect(Math.min(...counted)).toBeGreaterThan(0);
  });

  it('a tire that is down is never said to turn slower', () => {
    for (const { words, code } of said(metric))
      if (code === 'tire-low' || code === 'tire-underinflated') expect(words).not.toContain('slower');
  });
});

describe('a finding and the cell of the ledger it stands beside', () => {
  const cells = visits.flatMap(({ job, assessment }) =>
    columnsOf(job, assessment).flatMap(({ wheel, gauge, target }) =>
      gauge
        ? [
            {
              state: gauge.state,
              advice: target?.advice,
              found: findingsThatHold(assessment).flatMap(({ code, wheels }) =>
                wheels.includes(wheel) ? [code] : [],
              ),
              words: `${gauge.kPa} at ${wheel} in ${JSON.stringify(job.observations)}`,
            },
          ]
        : [],
    ),
  );

  it('never say "good" and "under placard", nor "over" and "low"', () => {
    for (const { state, found, words } of cells) {
      const isShort = found.includes('tire-low') || found.includes('tire-underinflated');
      if (state === 'good' || state === 'over' || state === 'too-high') expect(isShort, words).toBe(false);
      if (state === 'low') expect(found, words).toContain('tire-low');
      if (state === 'short') expect(isShort, words).toBe(true);
      if (state === 'too-high') expect(found, words).toContain('tire-overinflated');
      else if (state === 'good' || state === 'over') expect(found, words).not.toContain('tire-overinflated');
    }
    expect(new Set(cells.map(({ state }) => state)).size).toBeGreaterThan(6);
  });

  it('nor does the advice below it speak against it', () => {
    const goes = { low: 'add', short: 'add', good: 'leave' } as const;
    for (const { state, advice, words } of cells)
      if (state === 'low' || state === 'short' || state === 'good')
        if (advice !== undefined) expect(advice, words).toBe(goes[state]);
  });

  it('and a wheel bears one finding of its pressure', () => {
    const ofPressure = ['tire-low', 'tire-underinflated', 'tire-overinflated'];
    for (const { found, words } of cells)
      expect(found.filter((code) => ofPressure.includes(code)).length, words).toBeLessThan(2);
  });
});

describe('headline, first finding and move', () => {
  it('are about the same, unless the move is a check of something else', () => {
    for (const { move, shown, job } of visits) {
      const [first] = shown.findings;
      if (shown.subject) expect(first).toBe(shown.subject);
      if (move.kind === 'act' || move.kind === 'fill')
        expect(shown.subject, `${move.kind} in ${JSON.stringify(job.observations)}`).toBeDefined();
    }
  });

  it('never are to hand over with a finding on top that calls for a hand', () => {
    for (const { move, shown, job } of visits) {
      if (move.kind !== 'hand-over') continue;
      const [first] = shown.findings;
      const callsForAHand = first && !blamesNothing(first.code) && recordOf(first.code).work !== undefined;
      expect(callsForAHand, `${first && titleOf(first)} in ${JSON.stringify(job.observations)}`).not.toBe(
        true,
      );
    }
  });

  it('fill no tire that is hot, hurt, or stood nearly flat before it was looked at', () => {
    for (const { move, shown, job } of visits)
      if (move.kind === 'fill')
        for (const finding of shown.findings) expect(comesFirst(job, finding)).toBe(false);
  });

  it('have what blames nothing at the end, and sensors that sleep in no finding', () => {
    for (const { shown } of visits) {
      const calm = shown.findings.slice(shown.subject ? 1 : 0).map(({ code }) => blamesNothing(code));
      expect(calm).toEqual([...calm].sort((a, b) => Number(a) - Number(b)));
      expect(shown.findings.some(({ code }) => code === 'sensors-asleep')).toBe(false);
    }
  });

  it('are of all kinds in these visits', () => {
    const kinds = new Set(visits.map(({ move }) => move.kind));
    for (const kind of ['act', 'fill', 'gauge', 'wake', 'write-ids'] as const) expect(kinds).toContain(kind);
    expect(visits.some(({ move }) => isCheck(move))).toBe(true);
  });
});

describe('a gauge reading of before what says otherwise', () => {
  // A sensor says 171 a day after the gauge read 231.
  const job = jobWith([
    ...gauges(1, { RF: 231 }),
    heard(1 + 26 * 60, 'RF', { kPa: 171 }),
    lamp(3 + 26 * 60, 'steady'),
  ]);
  const assessment = assessBriefly(job);

  it('is called earlier, and the gauge is the next move', () => {
    const [, rf] = columnsOf(job, assessment);
    expect(rf?.gauge?.state).toBe('earlier');
    const move = nextMove(job, { assessment, handedOver: false, hasTool: true, hasLead: false });
    expect(move).toMatchObject({ kind: 'gauge', wheel: 'RF', again: true });
  });

  it('is told beside the later one as the reason', () => {
    const words = clausesFor(job, { code: 'tire-leaking', wheels: ['RF'] }, undefined, metric).map(
      (one) => one.words,
    );
    expect(words).toEqual(['RF was gauged at 231, and 26 hours later its sensor says 171.']);
  });
});

it('a tire at its placard is good, also where the coldest hour wants more: only what to set says so', () => {
  const job = jobWith(gauges(1, { LR: 221 }), {
    climate: { nowC: 12, overnightLowC: -8, altitudeM: 0, fillPolicy: 'morning' },
  });
  const columns = columnsOf(job, assessBriefly(job));
  expect(columns.map(({ gauge: cell }) => cell?.state)).toEqual(['good', 'good', 'good', 'good']);
  for (const { target } of columns) {
    expect(target?.advice).toBe('add');
    expect(target?.addKPa).toBeGreaterThan(15);
  }
});

it('an air line that reads good after a trusted gauge read low proves nothing, and asks for no less air', () => {
  const seen = [...gauges(1, { RF: 168 }), gauge(5, 'RF', 231, { trusted: false })];
  const job = jobWith(seen);
  const assessment = assessBriefly(job);
  expect(columnsOf(job, assessment)[1]).toMatchObject({
    gauge: { kPa: 231, state: 'not-trusted' },
    target: { advice: 'add', addKPa: 62 },
  });
  expect(proofOf(job).checks.find(({ name }) => name === 'pressures')?.state).toBe('unmet');
});

it('what is proved is never found to be wrong', () => {
  for (const { job, shown } of visits) {
    if (!proofOf(job).proved) continue;
    expect(shown.findings.filter(({ code }) => !blamesNothing(code)).map(titleOf)).toEqual([]);
  }
});
