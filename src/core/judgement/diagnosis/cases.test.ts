import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { caseSchema, expectCase } from '../../../../tests/support/case';
import { assessmentSchema } from '../assessment/schema';
import { assessBriefly } from '.';

const folder = new URL('../../../../tests/cases/', import.meta.url);

describe('worked examples', () => {
  for (const file of readdirSync(folder)) {
    const example = caseSchema.parse(JSON.parse(readFileSync(new URL(file, folder), 'utf8')));
    it(example.name, () => {
      const assessment = expectCase(example);
      expect(assessmentSchema.parse(assessment)).toEqual(assessment);
      // What a screen shows while the evidence is weighed is the same verdict.
      const findings = assessment.findings.map((finding) => ({ ...finding, evidence: [] }));
      expect(assessBriefly(example.job)).toEqual({ ...assessment, findings });
    });
  }
});
