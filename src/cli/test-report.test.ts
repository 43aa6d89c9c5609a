import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from 'vitest';
import { ofPlaywright, ofVitest } from './test-report';

test('of the unit tests, each that failed is told by file, name and words, and a file that would not load as one', () => {
  const outcome = ofVitest({
    numPassedTests: 3,
    testResults: [
      {
        name: 'leak.test.ts',
        status: 'failed',
        message: '',
        assertionResults: [
          {
            fullName: 'a slow leak is one',
            status: 'failed',
            failureMessages: ['expected 1 to be 2\n  at leak.test.ts:4'],
          },
          { fullName: 'a fast leak is one', status: 'passed', failureMessages: [] },
          { fullName: 'a valve leaks', status: 'passed', failureMessages: ['timed out'] },
        ],
      },
      { name: 'lamp.test.ts', status: 'failed', message: 'Cannot find module', assertionResults: [] },
      { name: 'sets.test.ts', status: 'passed', message: '', assertionResults: [] },
    ],
  });
  expect(outcome.passed).toBe(3);
  expect(outcome.failures).toEqual([
    'leak.test.ts › a slow leak is one\n    expected 1 to be 2\n      at leak.test.ts:4',
    'lamp.test.ts\n    Cannot find module',
  ]);
  expect(outcome.unsteady).toEqual(['leak.test.ts › a valve leaks\n    timed out']);
});

test('of the browser tests, what was on the screen is told with the failure, and what passed at a second try by name', () => {
  const context = join(mkdtempSync(join(tmpdir(), 'report-')), 'error-context.md');
  writeFileSync(context, '# Error\n\n# Page snapshot\n- heading "Yard"');
  const spec = (title: string, status: string, attachments: object[] = []) => ({
    title,
    file: 'visit.spec.ts',
    tests: [{ status, results: [{ errors: [{ message: `${title}: not seen` }], attachments }] }],
  });
  const outcome = ofPlaywright({
    stats: { expected: 2, flaky: 1 },
    errors: [],
    suites: [
      {
        specs: [
          spec('books in', 'unexpected', [{ name: 'error-context', path: context }]),
          spec('walks', 'expected'),
        ],
        suites: [{ specs: [spec('proves', 'flaky')] }],
      },
    ],
  });
  expect(outcome.passed).toBe(3);
  expect(outcome.failures).toHaveLength(1);
  expect(outcome.failures[0]).toContain('books in: not seen');
  expect(outcome.failures[0]).toContain('- heading "Yard"');
  expect(outcome.unsteady).toHaveLength(1);
  expect(outcome.unsteady[0]).toContain('visit.spec.ts › proves');
});
