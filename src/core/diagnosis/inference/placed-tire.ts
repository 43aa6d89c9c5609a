import type { Reply } from '../../job';
import { type Sums, type System, totalOf } from '../hypotheses';
import type { Priors } from '../learning';
import { type Figures, figureKinds } from '../likelihoods';
import type { PlacedSensor } from './placed-sensor';
import { bareTire, type Sensed } from './sensed-tire';
import type { Accuracy } from './sensor-sums';

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
  // A row for each content of what the car shows; in it by figures, accuracy, and whether all went with the cold.
  private readonly rows = new Map<number, (Sums | undefined)[]>();
  private cooled: TireTotals | undefined;
  private asUsual: TireTotals | undefined;

  /** `number`: of the content of the tire. `sum`: its states, summed up. */
  constructor(
    readonly number: number,
    private readonly priors: Priors,
    private readonly own: Reply | undefined,
    private readonly sum: (sensed: Sensed) => Sums,
  ) {}

  /** Where the car has the wheel at the position of this sensor. */
  sums(
    { at: { position }, shown }: PlacedSensor,
    system: System,
    accuracy: Accuracy,
    figures: Figures,
  ): Sums {
    let row = this.rows.get(shown);
    if (!row) this.rows.set(shown, (row = []));
    const slot =
      (figureKinds.indexOf(figures) << 2) | (Number(accuracy === 'off') << 1) | Number(system.cooled);
    return (row[slot] ??= this.sum({
      position,
      replyKPa: figures === 'none' ? undefined : (this.own?.kPa ?? undefined),
      system,
      accuracy,
      heard: figures === 'car',
    }));
  }

  /** What it weighs in a system. */
  totals(system: System): TireTotals {
    return system.cooled ? (this.cooled ??= this.totalsIn(system)) : (this.asUsual ??= this.totalsIn(system));
  }

  private totalsIn(system: System): TireTotals {
    const bare = bareTire(system);
    const none = totalOf(this.sum(bare));
    const replyKPa = this.own?.kPa ?? undefined;
    // Without a figure, how well it reads weighs nothing.
    if (replyKPa === undefined) return { none, tool: none };
    const inaccurate = this.priors.of['sensor-inaccurate'];
    const sound = totalOf(this.sum({ ...bare, replyKPa }));
    const off = totalOf(this.sum({ ...bare, replyKPa, accuracy: 'off' }));
    return { none, tool: (1 - inaccurate) * sound + inaccurate * off };
  }
}
