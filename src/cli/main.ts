import { availableParallelism } from 'node:os';
import { Command, CommanderError, InvalidArgumentError, Option } from 'commander';
import { setting, wrongSettings } from '../settings';
import { orSentence, Trouble } from './say';

/**
 * `./hacienda COMMAND`: what needs TypeScript. Installing and building is done before by the shell script. Exit status 2 says
 * that it was called wrongly.
 */
process.chdir(setting('HACIENDA_CALLED_FROM') ?? '.');

/** A whole number from 1 to `most`. */
const upTo = (most: number) => (typed: string) => {
  const number = Number(typed);
  if (!Number.isInteger(number) || number < 1 || number > most)
    throw new InvalidArgumentError(`It takes a whole number from 1 to ${most}.`);
  return number;
};
const mostVehicles = 200_000;
const mostProcesses = 64;

/** What a command ends with. */
let status = 0;
const ending = (work: Promise<number>) => work.then((code) => void (status = code));

const hacienda = new Command('./hacienda')
  .description('Tire-pressure sensors: diagnosis, programming, relearn, proof and records of a tire shop.')
  .showHelpAfterError()
  .exitOverride();

/** A command of its own name, which says how it is used where it is called wrongly. */
const command = (name: string, says: string) => hacienda.command(name).description(says);
const ofTheDemo = () => new Option('--demo', 'of the demo');
const withoutAsking = () => new Option('--yes', 'without asking');

command('demo', 'an invented shop with simulated cars, to try it out')
  .addOption(
    new Option('--years <cars>', 'with ten years of so many cars')
      .argParser(upTo(mostVehicles))
      .default(0, '0'),
  )
  .action(async ({ years }: { years: number }) => ending((await import('./serve')).demo(years)));
command('start', 'the shop’s own data')
  .addOption(
    new Option(
      '--processes [count]',
      'so many server processes; as many as there are cores where no number is said',
    )
      .argParser(upTo(mostProcesses))
      .preset(String(availableParallelism()))
      .default(1),
  )
  .action(async ({ processes }: { processes: number }) => ending((await import('./serve')).start(processes)));
command('assess', 'job files in, one assessment per line out')
  .argument('<files...>', 'job files; - for standard input, one job per line')
  .action(async (files: string[]) => ending((await import('./assess')).assessFiles(files)));
command('relearn', 'a procedure and the events of a run in, where the run stands out, a line per event')
  .argument('<procedure>', 'a procedure file')
  .argument('<events>', 'its events, JSON Lines; - for standard input')
  .action(async (procedure: string, events: string) =>
    ending((await import('./relearn')).relearn(procedure, events)),
  );
command('decode', 'candump logs in, the messages between modules out, a line each')
  .argument('<files...>', 'logs of CAN traffic; - for standard input')
  .action(async (files: string[]) => ending((await import('./decode')).decode(files)));
command('reception', 'telegrams of a drive in, how well each sensor was heard out, a line each')
  .argument('<file>', 'JSON Lines, or CSV with a header line; - for standard input')
  .action(async (file: string) => ending((await import('./reception')).reception(file)));
command('test', 'every check there is')
  .argument('[steps...]', 'only these of them')
  .action(async (steps: string[]) => ending((await import('./test')).test(steps)));
command('shots', 'remakes docs/screenshots').action(async () => ending((await import('./shots')).shots()));
command('backup', 'the shop’s data into a file, restored on trial and compared')
  .argument('<file>')
  .addOption(ofTheDemo())
  .action(async (file: string, asked: { demo?: boolean }) =>
    ending((await import('./keep')).backup(file, asked)),
  );
command('restore', 'such a file in the place of the shop’s data')
  .argument('<file>')
  .addOption(ofTheDemo())
  .addOption(withoutAsking())
  .action(async (file: string, asked: { demo?: boolean; yes?: boolean }) =>
    ending((await import('./keep')).restore(file, asked)),
  );
command('years', 'ten simulated years of so many cars, into an empty shop of the database DATABASE_URL names')
  .argument('<cars>', `1 to ${mostVehicles}`, upTo(mostVehicles))
  .action(async (cars: number) => ending((await import('./years')).years(cars)));
command('reset', 'wipes .hacienda after asking')
  .addOption(withoutAsking())
  .action(async (asked: { yes?: boolean }) => ending((await import('./reset')).reset(asked)));

async function run(): Promise<number> {
  const wrong = wrongSettings(process.env);
  if (wrong.length > 0) throw new Trouble(wrong.join('\n'));
  try {
    await hacienda.parseAsync();
    return status;
  } catch (error) {
    // It has said what is wrong, and how it is used.
    if (error instanceof CommanderError) return error.exitCode === 0 ? 0 : 2;
    throw error;
  }
}

process.exitCode = await orSentence(run);
