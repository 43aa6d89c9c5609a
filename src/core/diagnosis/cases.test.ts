import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import { assessmentSchema } from '../assessment/schema';
import { jobSchema } from '../job/schema';
import { assess } from '.';

/** Worked examples, `{ name, job, expect }`: every expected finding at even odds or more, with its wheels. */
const folder = new URL('../../../tests/cases/', import.meta.url);
const finding = z.object({ code: z.string(), wheels: z.array(z.string()).optional() });
const caseSchema = z.object({
  name: z.string(),
  job: jobSchema,
  expect: z.object({
    findings: z.array(finding),
    not: z.array(z.string()).default([]),
    allowed: z.array(z.string()).default([]),
    targets: z.array(z.object({ wheel: z.string(), setNowKPa: z.number() })).default([]),
    lamp: z.record(z.string(), z.unknown()).optional(),
    registration: z.record(z.string(), z.unknown()).optional(),
    positions: z.record(z.string(), z.string()).optional(),
  }),
});

describe('worked examples', () => {
  for (const file of readdirSync(folder)) {
    const example = caseSchema.parse(JSON.parse(readFileSync(new URL(file, folder), 'utf8')));
    it(example.name, () => {
      const assessment = assess(example.job);
      expect(assessmentSchema.parse(assessment)).toEqual(assessment);
      const held = assessment.findings.filter(({ probability }) => probability >= 0.5);
      const wanted = example.expect;
      for (const { code, wheels } of wanted.findings) {
        const match = held.find((found) => found.code === code);
        expect(match, code).toBeDefined();
        if (wheels && wheels.length > 0)
          expect([...(match?.wheels ?? [])].sort()).toEqual([...wheels].sort());
      }
      const expected = wanted.findings.map(({ code }) => code);
      const surplus = held.filter(({ code }) => !expected.includes(code) && !wanted.allowed.includes(code));
      expect(surplus.map(({ code }) => code)).toEqual([]);
      for (const code of wanted.not) expect(held.map((found) => found.code)).not.toContain(code);
      for (const { wheel, setNowKPa } of wanted.targets) {
        const target = assessment.targets.find((candidate) => candidate.wheel === wheel);
        expect(Math.abs((target?.setNowKPa ?? Number.NaN) - setNowKPa)).toBeLessThan(0.6);
      }
      if (wanted.lamp) expect(assessment.lamp).toMatchObject(wanted.lamp);
      if (wanted.registration) expect(assessment.registration).toMatchObject(wanted.registration);
      if (wanted.positions) expect(assessment.positions).toEqual(wanted.positions);
    });
  }
});
