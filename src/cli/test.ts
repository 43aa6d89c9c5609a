import { spawn } from 'node:child_process';
import { chmodSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { sweep } from './cluster';
import { root } from './instance';
import { say } from './say';
import { ofPlaywright, ofVitest, type Outcome } from './test-report';

interface Step {
  name: string;
  run: () => Promise<Outcome>;
}

/**
 * Everything that is checked, in order; a name among the parameters runs those steps alone. Steps of one row run side by
 * side: those that start servers wait for them most of the time.
 */
const steps: Step[][] = [
  [
    { name: 'format', run: () => check('prettier', ['--check', '.', '--log-level', 'warn']) },
    { name: 'lint', run: () => check('eslint', ['.']) },
    { name: 'types', run: () => check('astro', ['check', '--minimumFailingSeverity', 'error']) },
    { name: 'imports', run: () => check('depcruise', ['src', '--output-type', 'err']) },
  ],
  [
    // What they test keeps nothing from one file to the next, so it is loaded once.
    { name: 'unit', run: () => vitest('unit', ['--no-isolate']) },
    { name: 'integration', run: () => vitest('integration') },
    { name: 'servers', run: () => vitest('servers', ['--maxWorkers=2']) },
  ],
  [{ name: 'e2e', run: playwright }],
];

/**
 * Runs what is asked for (nothing named: all of it). What failed is told once more at the end, above the line that counts:
 * whoever has only the end of the output finds it there.
 * @returns the exit status: 0 where something passed and nothing failed
 */
export async function test(only: readonly string[]): Promise<number> {
  process.chdir(root);
  let passed = 0;
  const failures: string[] = [];
  const unsteady: string[] = [];
  const isAsked = ({ name }: Step) => only.length === 0 || only.includes(name);
  for (const row of steps.map((all) => all.filter(isAsked)).filter((all) => all.length > 0)) {
    say(`\n── ${row.map(({ name }) => name).join(' and ')}`);
    await Promise.all(
      row.map(async ({ name, run }) => {
        const outcome = await run();
        passed += outcome.passed;
        failures.push(...outcome.failures.map((failure) => `${name}: ${failure}`));
        unsteady.push(...outcome.unsteady.map((one) => `${name}: ${one}`));
        say(`${name}: ${outcome.passed} passed, ${outcome.failures.length} failed`);
      }),
    );
  }
  await leaveNothing();
  if (unsteady.length > 0) say(`\n── what passed only when it was tried again\n\n${unsteady.join('\n\n')}`);
  if (failures.length > 0) say(`\n── what failed\n\n${failures.join('\n\n')}`);
  say(`\n${passed} passed, ${failures.length} failed`);
  return failures.length === 0 && passed > 0 ? 0 : 1;
}

/** Whatever a run starts and writes for itself lies here: shops, databases, browsers. */
const runFolder = mkdtempSync(join(tmpdir(), 'hacienda-run-'));
// A database server runs as another user.
chmodSync(runFolder, 0o755);

/** What a test that was cut off left running ends with the run. */
async function leaveNothing(): Promise<void> {
  for (const name of readdirSync(runFolder))
    if (name.startsWith('hacienda-')) await sweep(join(runFolder, name));
  rmSync(runFolder, { recursive: true, force: true });
}

interface Ended {
  succeeded: boolean;
  /** Its last words, of both streams. */
  words: string;
}

/** Enough of a program's end to see what stopped it. */
const mostOfItsWords = 4000;

/** Runs one of the project's own programs; its words are shown as they come. */
function program(name: string, parameters: string[]): Promise<Ended> {
  return new Promise((resolve) => {
    let words = '';
    const child = spawn(join(root, 'node_modules/.bin', name), parameters, {
      cwd: root,
      stdio: ['ignore', 'pipe', 'pipe'],
      env: { ...process.env, TMPDIR: runFolder, ...(process.stdout.isTTY ? { FORCE_COLOR: '1' } : {}) },
    });
    const keep = (to: NodeJS.WriteStream) => (chunk: Buffer) => {
      to.write(chunk);
      words = (words + chunk.toString()).slice(-mostOfItsWords);
    };
    child.stdout.on('data', keep(process.stdout));
    child.stderr.on('data', keep(process.stderr));
    child.once('close', (code) => resolve({ succeeded: code === 0, words }));
    child.once('error', (error) => resolve({ succeeded: false, words: error.message }));
  });
}

async function check(name: string, parameters: string[]): Promise<Outcome> {
  const { succeeded, words } = await program(name, parameters);
  return {
    passed: Number(succeeded),
    failures: succeeded ? [] : [`${name} ended with\n${words}`],
    unsteady: [],
  };
}

const results = join(root, 'test-results');

function vitest(project: string, more: readonly string[] = []): Promise<Outcome> {
  const file = join(results, `${project}.json`);
  const reporters = ['--reporter=default', '--reporter=json', `--outputFile.json=${file}`];
  const parameters = ['run', '--project', project, ...more, ...reporters];
  return reported(file, () => program('vitest', parameters), ofVitest);
}

function playwright(): Promise<Outcome> {
  return reported(join(results, 'e2e.json'), () => program('playwright', ['test']), ofPlaywright);
}

/** Reads a run's report; a run that fails without a failed test (or without a report) counts as one failure. */
async function reported(
  file: string,
  run: () => Promise<Ended>,
  read: (report: unknown) => Outcome,
): Promise<Outcome> {
  mkdirSync(results, { recursive: true });
  rmSync(file, { force: true });
  const { succeeded, words } = await run();
  const itself = `ended with an error that belongs to no test\n${words}`;
  try {
    const outcome = read(JSON.parse(readFileSync(file, 'utf8')));
    return succeeded || outcome.failures.length > 0 ? outcome : { ...outcome, failures: [itself] };
  } catch {
    return { passed: 0, failures: [itself], unsteady: [] };
  }
}
