import type { Reply } from '../../job';
import type { Context, PositionEvidence, WheelEvidence } from '../evidence';
import { wheelSets, type System, type WheelSet } from '../hypotheses';
import type { Priors } from '../learning';
import { type Answers, sensorAtMost } from '../likelihoods';
import { bareTire, highestDensityOf, isDeaf, type Sensed } from './placing';

/**
 * No less than the weights of the factors of one wheel, with one of its replies taken as its own, for less work
 * than the factors: the most its sensor can add up to, times its tire without what the car shows of it, times the
 * most that any pressure could make of that.
 */
export class Bounds {
  private readonly mosts = new Map<string, number>();

  constructor(
    private readonly sensors: readonly SensorBounds[],
    private readonly tire: TireBounds,
  ) {}

  /** By position; `elsewhere`: the ID held there is that of another wheel's sensor. */
  row(elsewhere: readonly boolean[], system: System): number[] {
    return this.sensors.map((sensor, at) => this.of(sensor, elsewhere[at] ?? false, system));
  }

  /** At any position, in any system of these kinds. */
  most({ systems, name }: SystemKinds): number {
    let most = this.mosts.get(name);
    if (most !== undefined) return most;
    most = 0;
    for (const system of systems) {
      for (const sensor of this.sensors)
        most = Math.max(most, this.of(sensor, false, system), this.of(sensor, true, system));
    }
    this.mosts.set(name, most);
    return most;
  }

  private of(sensor: SensorBounds, elsewhere: boolean, system: System): number {
    const { silent, alive } = sensor.in(elsewhere, system);
    const { none, tool } = this.tire.in(system);
    return silent * none + alive * tool;
  }
}

/** The systems among these that differ in what a bound rests on, and what they are called together. */
export interface SystemKinds {
  systems: readonly System[];
  name: string;
}

export function kindsOf(systems: readonly System[]): SystemKinds {
  const kinds = new Map(systems.map((system) => [`${wayOf(system)} ${system.cooled}`, system]));
  return { systems: [...kinds.values()], name: [...kinds.keys()].join() };
}

/** What the most that a sensor adds up to rests on, in one number. */
const wayOf = (system: System): number =>
  ((system.otherSetNumber * setsOnFile + system.mountedNumber) * wheelSets.length +
    wheelSets.indexOf(system.set)) *
    2 +
  Number(isDeaf(system));

const setsOnFile = 16;

/** No less than what a sensor that gives no figures, and one that does, add up to. */
type SensorAtMost = ReturnType<typeof sensorAtMost>;

/** The most the sensor of a wheel can add up to at a position, by what the car is like; worked out when first asked for. */
export class SensorBounds {
  private readonly known: (SensorAtMost | undefined)[] = [];

  constructor(
    private readonly context: Context,
    private readonly wheel: WheelEvidence,
    private readonly position: PositionEvidence,
    private readonly own: Reply | undefined,
    private readonly inSet: (set: WheelSet) => { priors: Priors; answers: Answers },
  ) {}

  in(heldIsElsewhere: boolean, system: System): SensorAtMost {
    const deaf = isDeaf(system);
    const { otherSet, mounted } = system;
    const way = wayOf(system) * 2 + Number(heldIsElsewhere);
    const known = this.known[way];
    if (known) return known;
    const { priors, answers } = this.inSet(system.set);
    return (this.known[way] = sensorAtMost(
      this.context,
      priors,
      this.wheel,
      this.position,
      { own: this.own, heldIsElsewhere, deaf, otherSet, mounted },
      highestDensityOf(this.position),
      answers,
    ));
  }
}

/** The weight of a tire without any figure of a sensor, and with that of its reply. */
interface TireTotals {
  none: number;
  tool: number;
}

/** The weight of the tire of a wheel, by whether all went with the cold. */
export class TireBounds {
  private cooled: TireTotals | undefined;
  private asUsual: TireTotals | undefined;

  constructor(
    private readonly priors: Priors,
    private readonly own: Reply | undefined,
    private readonly total: (sensed: Sensed) => number,
  ) {}

  in(system: System): TireTotals {
    return system.cooled ? (this.cooled ??= this.totals(system)) : (this.asUsual ??= this.totals(system));
  }

  private totals(system: System): TireTotals {
    const bare = bareTire(system);
    const none = this.total(bare);
    const replyKPa = this.own?.kPa ?? undefined;
    // Without a figure, how well it reads weighs nothing.
    if (replyKPa === undefined) return { none, tool: none };
    const inaccurate = this.priors.of['sensor-inaccurate'];
    const sound = this.total({ ...bare, replyKPa });
    const off = this.total({ ...bare, replyKPa, accuracy: 'off' });
    return { none, tool: (1 - inaccurate) * sound + inaccurate * off };
  }
}
