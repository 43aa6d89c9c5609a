import { existsSync, readFileSync } from 'node:fs';
import { z } from 'zod';

/**
 * What a run of tests came to; what is told of each test that failed: its name, and the words of its failure; and those that
 * passed only when they were tried again.
 */
export interface Outcome {
  passed: number;
  failures: string[];
  unsteady: string[];
}

const vitestReport = z.object({
  numPassedTests: z.number(),
  testResults: z.array(
    z.object({
      name: z.string(),
      status: z.string(),
      message: z.string().default(''),
      assertionResults: z.array(
        z.object({
          fullName: z.string(),
          status: z.string(),
          failureMessages: z.array(z.string()).nullish(),
        }),
      ),
    }),
  ),
});

/** Reads Vitest's JSON report; a file that could not be run at all counts as one failure. */
export function ofVitest(report: unknown): Outcome {
  const { numPassedTests, testResults } = vitestReport.parse(report);
  const failures = testResults.flatMap(({ name, status, message, assertionResults }) => {
    const failed = assertionResults
      .filter((test) => test.status === 'failed')
      .map((test) => told(`${name} › ${test.fullName}`, test.failureMessages ?? []));
    return failed.length === 0 && status === 'failed' ? [told(name, [message])] : failed;
  });
  // What passed with the words of a failure beside it was tried again.
  const unsteady = testResults.flatMap(({ name, assertionResults }) =>
    assertionResults
      .filter(({ status, failureMessages }) => status === 'passed' && (failureMessages ?? []).length > 0)
      .map(({ fullName, failureMessages }) => told(`${name} › ${fullName}`, failureMessages ?? [])),
  );
  return { passed: numPassedTests, failures, unsteady };
}

const playwrightSpec = z.object({
  title: z.string(),
  file: z.string(),
  tests: z.array(
    z.object({
      status: z.string(),
      results: z.array(
        z.object({
          errors: z.array(z.object({ message: z.string().optional() })),
          attachments: z.array(z.object({ name: z.string(), path: z.string().optional() })),
        }),
      ),
    }),
  ),
});
const playwrightSuite = z.object({
  specs: z.array(playwrightSpec).default([]),
  get suites() {
    return z.array(playwrightSuite).default([]);
  },
});
type PlaywrightSuite = z.infer<typeof playwrightSuite>;

const playwrightReport = z.object({
  suites: z.array(playwrightSuite),
  errors: z.array(z.object({ message: z.string().optional() })).default([]),
  stats: z.object({ expected: z.number(), flaky: z.number().default(0) }),
});

/**
 * Reads Playwright's JSON report. What was on the screen as a test failed is told with it: where it ran, the pictures may be
 * gone.
 */
export function ofPlaywright(report: unknown): Outcome {
  const { suites, errors, stats } = playwrightReport.parse(report);
  const specs = suites.flatMap(specsOf);
  const thatEnded = (how: 'unexpected' | 'flaky') =>
    specs.flatMap(({ title, file, tests }) =>
      tests
        .filter(({ status }) => status === how)
        .map(({ results }) =>
          [
            told(`${file} › ${title}`, wordsOf(results.flatMap((result) => result.errors))),
            ...results.flatMap((result) => result.attachments).flatMap(screenIn),
          ].join('\n'),
        ),
    );
  return {
    passed: stats.expected + stats.flaky,
    failures: [...thatEnded('unexpected'), ...wordsOf(errors)],
    unsteady: thatEnded('flaky'),
  };
}

const specsOf = ({ specs, suites }: PlaywrightSuite): z.infer<typeof playwrightSpec>[] => [
  ...specs,
  ...suites.flatMap(specsOf),
];

const wordsOf = (errors: readonly { message?: string | undefined }[]): string[] =>
  errors.flatMap(({ message }) => message ?? []);

const mostLinesOfScreen = 60;

function screenIn({ name, path }: { name: string; path?: string | undefined }): string[] {
  if (name !== 'error-context' || path === undefined || !existsSync(path)) return [];
  const [, screen = ''] = readFileSync(path, 'utf8').split('# Page snapshot');
  return screen.split('\n').slice(0, mostLinesOfScreen);
}

/** Enough of a failure to find its place. */
const mostLines = 25;

const told = (name: string, words: readonly string[]): string =>
  [name, ...words.flatMap((text) => text.split('\n')).slice(0, mostLines)].join('\n    ');
