import { expect } from 'vitest';
import { z } from 'zod';
import { holds } from '../../src/core/judgement/assessment';
import { assess } from '../../src/core/judgement/diagnosis';
import { jobSchema } from '../../src/core/job/schema';

/** A worked example, `{ name, job, expect }`: every expected finding at even odds or more, with its wheels. */
const finding = z.object({ code: z.string(), wheels: z.array(z.string()).optional() });

export const expectationSchema = z.object({
  findings: z.array(finding),
  not: z.array(z.string()).default([]),
  allowed: z.array(z.string()).default([]),
  targets: z.array(z.object({ wheel: z.string(), setNowKPa: z.number() })).default([]),
  lamp: z.record(z.string(), z.unknown()).optional(),
  registration: z.record(z.string(), z.unknown()).optional(),
  positions: z.record(z.string(), z.string()).optional(),
});

export const caseSchema = z.object({ name: z.string(), job: jobSchema, expect: expectationSchema });
export type Case = z.infer<typeof caseSchema>;

/** Holds an assessment of the job against what is expected of it, and gives it back. */
export function expectCase({ job, expect: wanted }: Case) {
  const assessment = assess(job);
  const held = assessment.findings.filter(({ probability }) => probability >= holds);
  for (const { code, wheels } of wanted.findings) {
    const match = held.find((found) => found.code === code);
    expect(match, `${code} among ${inWords(assessment.findings)}`).toBeDefined();
    if (wheels && wheels.length > 0)
      expect([...(match?.wheels ?? [])].sort(), code).toEqual([...wheels].sort());
  }
  const expected = wanted.findings.map(({ code }) => code);
  const surplus = held.filter(({ code }) => !expected.includes(code) && !wanted.allowed.includes(code));
  expect(inWords(surplus), inWords(assessment.findings)).toBe('');
  for (const code of wanted.not) expect(held.map((found) => found.code)).not.toContain(code);
  for (const { wheel, setNowKPa } of wanted.targets) {
    const target = assessment.targets.find((candidate) => candidate.wheel === wheel);
    expect(Math.abs((target?.setNowKPa ?? Number.NaN) - setNowKPa)).toBeLessThan(0.6);
  }
  if (wanted.lamp) expect(assessment.lamp).toMatchObject(wanted.lamp);
  if (wanted.registration) expect(assessment.registration).toMatchObject(wanted.registration);
  if (wanted.positions) expect(assessment.positions ?? {}).toEqual(wanted.positions);
  return assessment;
}

const inWords = (
  findings: readonly { code: string; wheels: readonly string[]; probability: number }[],
): string =>
  findings
    .map(({ code, wheels, probability }) => `${code} ${wheels.join(' ')} ${probability.toFixed(2)}`)
    .join('; ');
