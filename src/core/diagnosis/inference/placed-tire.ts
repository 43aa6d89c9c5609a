import type { Reply } from '../../job';
import type { Sums, System } from '../hypotheses';
import { type Figures, figureKinds } from '../likelihoods';
import type { PlacedSensor } from './placed-sensor';
import { bareTire, type Sensed } from './sensed-tire';

/** The weight of a tire without any figure of a sensor, and with that of its reply. */
interface TireTotals {
  none: number;
  tool: number;
}

/**
 * The tire of a wheel, with one of its replies taken as its own: its states summed up by what is sensed of it, and what
 * they weigh without what the car shows. Worked out when first asked for.
 */
export class PlacedTire {
  // A row for each content of what the car shows; in it by figures, and whether all went with the cold.
  private readonly rows = new Map<number, (Sums | undefined)[]>();
  private cooled: TireTotals | undefined;
  private asUsual: TireTotals | undefined;

  /** `number`: of the content of the tire. `sum`: its states, summed up; `weigh`: what they weigh together. */
  constructor(
    readonly number: number,
    private readonly own: Reply | undefined,
    private readonly sum: (sensed: Sensed) => Sums,
    private readonly weigh: (sensed: Sensed) => number,
  ) {}

  /** Where the car has the wheel at the position of this sensor. */
  sums({ at: { position }, shown }: PlacedSensor, system: System, figures: Figures): Sums {
    let row = this.rows.get(shown);
    if (!row) this.rows.set(shown, (row = []));
    const slot = (figureKinds.indexOf(figures) << 1) | Number(system.cooled);
    return (row[slot] ??= this.sum({
      position,
      replyKPa: figures === 'none' ? undefined : (this.own?.kPa ?? undefined),
      system,
      figures,
    }));
  }

  /** What it weighs in a system. */
  totals(system: System): TireTotals {
    return system.cooled ? (this.cooled ??= this.totalsIn(system)) : (this.asUsual ??= this.totalsIn(system));
  }

  /** No less than what it weighs in any of these systems. */
  mostTotals(systems: readonly System[]): TireTotals {
    const most = { none: 0, tool: 0 };
    for (const system of systems) {
      const { none, tool } = this.totals(system);
      most.none = Math.max(most.none, none);
      most.tool = Math.max(most.tool, tool);
    }
    return most;
  }

  private totalsIn(system: System): TireTotals {
    const bare = bareTire(system);
    const none = this.weigh(bare);
    const replyKPa = this.own?.kPa ?? undefined;
    // Without a figure, how well it reads weighs nothing.
    return { none, tool: replyKPa === undefined ? none : this.weigh({ ...bare, replyKPa, figures: 'tool' }) };
  }
}
