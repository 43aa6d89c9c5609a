import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { caseSchema, expectCase } from '../../../tests/support/case';
import { assessmentSchema } from '../assessment/schema';

const folder = new URL('../../../tests/cases/', import.meta.url);

describe('worked examples', () => {
  for (const file of readdirSync(folder)) {
    const example = caseSchema.parse(JSON.parse(readFileSync(new URL(file, folder), 'utf8')));
    it(example.name, () => {
      const assessment = expectCase(example);
      expect(assessmentSchema.parse(assessment)).toEqual(assessment);
    });
  }
});
