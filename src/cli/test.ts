import { spawn } from 'node:child_process';
import { mkdirSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { z } from 'zod';
import { root } from './instance';
import { say } from './say';

interface Count {
  passed: number;
  failed: number;
}

interface Step {
  name: string;
  run: () => Promise<Count>;
}

/**
 * Everything that is checked, in order; a name among the parameters runs those steps alone. Steps of one row run side by
 * side: one of the two waits for its database most of the time.
 */
const steps: Step[][] = [
  [{ name: 'format', run: () => check('prettier', ['--check', '.', '--log-level', 'warn']) }],
  [{ name: 'lint', run: () => check('eslint', ['.']) }],
  [{ name: 'types', run: () => check('astro', ['check', '--minimumFailingSeverity', 'error']) }],
  [{ name: 'imports', run: () => check('depcruise', ['src', '--output-type', 'err']) }],
  [
    { name: 'unit', run: () => vitest('unit') },
    { name: 'integration', run: () => vitest('integration') },
  ],
  [{ name: 'e2e', run: playwright }],
];

export async function test(only: readonly string[]): Promise<number> {
  process.chdir(root);
  const total: Count = { passed: 0, failed: 0 };
  const isAsked = ({ name }: Step) => only.length === 0 || only.includes(name);
  for (const row of steps.map((all) => all.filter(isAsked)).filter((all) => all.length > 0)) {
    say(`\n── ${row.map(({ name }) => name).join(' and ')}`);
    await Promise.all(
      row.map(async ({ name, run }) => {
        const { passed, failed } = await run();
        total.passed += passed;
        total.failed += failed;
        say(`${name}: ${passed} passed, ${failed} failed`);
      }),
    );
  }
  say(`\n${total.passed} passed, ${total.failed} failed`);
  return total.failed === 0 && total.passed > 0 ? 0 : 1;
}

/** Runs one of the project's own programs; its words are shown as they come. */
function program(name: string, parameters: string[]): Promise<boolean> {
  return new Promise((resolve) => {
    const child = spawn(join(root, 'node_modules/.bin', name), parameters, {
      cwd: root,
      stdio: ['ignore', 'inherit', 'inherit'],
    });
    child.once('exit', (code) => resolve(code === 0));
    child.once('error', () => resolve(false));
  });
}

async function check(name: string, parameters: string[]): Promise<Count> {
  return (await program(name, parameters)) ? { passed: 1, failed: 0 } : { passed: 0, failed: 1 };
}

const results = join(root, 'test-results');
const vitestReport = z.object({
  numPassedTests: z.number(),
  numFailedTests: z.number(),
  success: z.boolean(),
});
const playwrightReport = z.object({
  stats: z.object({ expected: z.number(), unexpected: z.number(), flaky: z.number() }),
});

async function vitest(project: string): Promise<Count> {
  const file = join(results, `${project}.json`);
  return reported(file, () =>
    program('vitest', [
      'run',
      '--project',
      project,
      '--reporter=default',
      '--reporter=json',
      `--outputFile.json=${file}`,
    ]),
  )((text) => {
    const { numPassedTests, numFailedTests } = vitestReport.parse(text);
    return { passed: numPassedTests, failed: numFailedTests };
  });
}

async function playwright(): Promise<Count> {
  const count = await reported(join(results, 'e2e.json'), () => program('playwright', ['test']))((text) => {
    const { expected, unexpected, flaky } = playwrightReport.parse(text).stats;
    return { passed: expected, failed: unexpected + flaky };
  });
  if (count.failed > 0) tellScreens();
  return count;
}

const mostLinesOfScreen = 60;

/** What was on the screen as a browser test failed: where it ran, the pictures may be gone. */
function tellScreens(): void {
  for (const file of readdirSync(results, { recursive: true, encoding: 'utf8' })) {
    if (!file.endsWith('error-context.md')) continue;
    const [, screen = ''] = readFileSync(join(results, file), 'utf8').split('# Page snapshot');
    say(`\n${file}${screen.split('\n').slice(0, mostLinesOfScreen).join('\n')}`);
  }
}

/** Reads a run's report; a run that fails without a failed test (or without a report) counts as one failure. */
const reported =
  (file: string, run: () => Promise<boolean>) =>
  async (read: (report: unknown) => Count): Promise<Count> => {
    mkdirSync(results, { recursive: true });
    rmSync(file, { force: true });
    const succeeded = await run();
    try {
      const count = read(JSON.parse(readFileSync(file, 'utf8')));
      return succeeded || count.failed > 0 ? count : { ...count, failed: 1 };
    } catch {
      return { passed: 0, failed: 1 };
    }
  };
