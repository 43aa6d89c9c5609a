import { setting, wrongSettings } from '../settings';
import { orSentence, Trouble } from './say';

/** `./hacienda COMMAND`: what needs TypeScript. Installing and building is done before by the shell script. */
const [command, ...parameters] = process.argv.slice(2);
process.chdir(setting('HACIENDA_CALLED_FROM') ?? '.');

const usage = `usage: ./hacienda demo | start | assess FILE… | relearn PROCEDURE EVENTS | test | shots | backup FILE | restore FILE | years CARS | reset
  demo    an invented shop with simulated cars, to try it out; --years=3000: with ten years of so many cars
  start   the shop's own data; --processes: one server process for each core
  assess  job files in, one assessment per line out
  relearn a procedure and the events of a run in, where the run stands out, a line per event
  test    every check there is
  shots   remakes docs/screenshots
  backup  the shop's data into a file, restored on trial and compared
  restore such a file in the place of the shop's data
  years   ten simulated years of so many cars, into an empty shop of the database DATABASE_URL names
  reset   wipes .hacienda after asking
`;

async function run(): Promise<number> {
  const wrong = wrongSettings(process.env);
  if (wrong.length > 0) throw new Trouble(wrong.join('\n'));
  switch (command) {
    case 'assess':
      return (await import('./assess')).assessFiles(parameters);
    case 'relearn':
      return (await import('./relearn')).relearn(parameters);
    case 'demo':
      return (await import('./serve')).demo(parameters);
    case 'start':
      return (await import('./serve')).start(parameters);
    case 'test':
      return (await import('./test')).test(parameters);
    case 'shots':
      return (await import('./shots')).shots();
    case 'backup':
      return (await import('./keep')).backup(parameters);
    case 'restore':
      return (await import('./keep')).restore(parameters);
    case 'years':
      return (await import('./years')).years(parameters);
    case 'reset':
      return (await import('./reset')).reset(parameters);
    default:
      process.stderr.write(usage);
      return 2;
  }
}

process.exitCode = await orSentence(run);
