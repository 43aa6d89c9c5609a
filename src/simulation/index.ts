import { drawCar } from './car';
import { chanceFrom, type Chance } from './chance';
import { lampOf } from './look';
import { runCar, type CarResult, type Leaks, type Outcome } from './loop';
import { calibrationErrorOf, Reliabilities, type Reliability } from '../core/measure/reliability';
import { pushedOff, worlds, type World, type WorldName } from './world';

export { chanceFrom } from './chance';
export { drawCar, type TrueCar } from './car';
export { truthOf } from './truth';
export { runCar } from './loop';
export { worldNames, worlds, type WorldName } from './world';

const waysOfWorking = ['engine', 'checklist', 'replace'] as const;
export type WayOfWorking = (typeof waysOfWorking)[number];

/** A way of working over a whole population. */
interface Score {
  /** Share of cars on which what it acted on first was right. */
  right: number;
  minutesPerCar: number;
  needlessPartsPer1000: number;
}

export interface Report {
  cars: number;
  seed: number;
  engine: Score;
  checklist: Score;
  replace: Score;
  reliability: Reliability[];
  /** How far chance and share lie apart. */
  calibrationError: number;
  leaks: Leaks;
}

/** Cars whose world is pushed off alike. */
const carsPerBlock = 250;

/**
 * Runs a population car by car. Gives back how many are done each time it is asked to go on, so that whoever
 * runs it can show how far it is, or stop. The same seed gives the same report.
 */
export function* population(
  cars: number,
  seed: number,
  of: WorldName = 'reporting',
): Generator<{ done: number; report: () => Report }, Report> {
  const tally = new Tally(seed);
  for (let done = 0; done < cars;) {
    const chance = chanceFrom(seed * 1_000_003 + done);
    const off = pushedOff(chance);
    for (let n = 0; n < carsPerBlock && done < cars; n += 1) {
      tally.add(runCar(drawVisitor(chance, off, worlds[of]), chance));
      done += 1;
      yield { done, report: () => tally.report() };
    }
  }
  return tally.report();
}

/** A car that comes in: with its lamp on, or now and then for other work. */
function drawVisitor(chance: Chance, off: (figure: string) => number, world: World) {
  for (;;) {
    const car = drawCar(chance, off, world);
    const lamp = lampOf(car, chance);
    if (lamp.state !== 'off' || lamp.bulbCheck === false || chance.is(world.lookedAtWithLampOff)) return car;
  }
}

class Tally {
  private readonly results = { engine: emptySum(), checklist: emptySum(), replace: emptySum() };
  private readonly reliabilities = new Reliabilities();
  private readonly leaks: Leaks = { there: 0, byRound: 0, missed: 0, left: 0 };
  private count = 0;

  constructor(private readonly seed: number) {}

  add(result: CarResult): void {
    this.count += 1;
    for (const way of waysOfWorking) addTo(this.results[way], result[way]);
    for (const claim of result.claims) this.reliabilities.add(claim);
    for (const key of ['there', 'byRound', 'missed', 'left'] as const) this.leaks[key] += result.leaks[key];
  }

  report(): Report {
    const reliability = this.reliabilities.list();
    const record = (sum: ReturnType<typeof emptySum>): Score => ({
      right: sum.right / this.count,
      minutesPerCar: sum.minutes / this.count,
      needlessPartsPer1000: (1000 * sum.parts) / this.count,
    });
    return {
      cars: this.count,
      seed: this.seed,
      engine: record(this.results.engine),
      checklist: record(this.results.checklist),
      replace: record(this.results.replace),
      reliability,
      calibrationError: calibrationErrorOf(reliability),
      leaks: { ...this.leaks },
    };
  }
}

const emptySum = () => ({ right: 0, minutes: 0, parts: 0 });

function addTo(sum: ReturnType<typeof emptySum>, outcome: Outcome): void {
  sum.right += Number(outcome.right);
  sum.minutes += outcome.minutes;
  sum.parts += outcome.needlessParts;
}
