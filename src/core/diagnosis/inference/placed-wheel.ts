import type { CarEvidence } from '../evidence';
import { type System, zeros } from '../hypotheses';
import type { PlacedSensor } from './placed-sensor';
import type { PlacedTire } from './placed-tire';
import { accumulate, type Factor } from './sensor-sums';

/**
 * A wheel with one of its replies taken as its own, at every position it may be placed: its factors, and for less
 * work no less than their weights: the most its sensor can add up to, times its tire without what the car shows of
 * it, times the most that any pressure could make of that.
 */
export class PlacedWheel {
  // By kind of system and by what is elsewhere, in one number: maps of maps cost more than they spare here.
  private readonly rows = new Map<number, BoundsRow>();
  private mostOfAll: { systems: readonly System[]; most: number } | undefined;

  constructor(
    private readonly sensors: readonly PlacedSensor[],
    private readonly tire: PlacedTire,
  ) {}

  /** At one position. `elsewhere`: at which positions the ID that is held is another wheel's, a bit each. */
  factor(at: number, elsewhere: number, system: System, reception: CarEvidence['reception']): Factor {
    const sensor = this.sensors[at];
    if (!sensor) throw new RangeError(`no position ${at}`);
    const sums = sensor.sums(isAt(elsewhere, at), system, reception);
    const key = (this.tire.number << 1) | Number(system.cooled);
    let factor = sums.factors.get(key);
    if (!factor) {
      const joined = sums.joinedWith((figures) => this.tire.sums(sensor, system, figures));
      sums.factors.set(key, (factor = accumulate(joined)));
    }
    return factor;
  }

  /** No less than the weight of its factor, by position. */
  row(elsewhere: number, system: System): BoundsRow {
    const key = (((system.kind << 1) | Number(system.cooled)) << this.sensors.length) | elsewhere;
    let row = this.rows.get(key);
    if (!row) this.rows.set(key, (row = this.rowIn(elsewhere, system)));
    return row;
  }

  /** The same at any position, in any of these systems, whatever is elsewhere. */
  most(systems: readonly System[]): number {
    if (this.mostOfAll?.systems === systems) return this.mostOfAll.most;
    const { none, tool } = this.tire.mostTotals(systems);
    let most = 0;
    for (const sensor of this.sensors) {
      const { silent, alive } = sensor.atMostIn(systems);
      most = Math.max(most, silent * none + alive * tool);
    }
    this.mostOfAll = { systems, most };
    return most;
  }

  private rowIn(elsewhere: number, system: System): BoundsRow {
    const { none, tool } = this.tire.totals(system);
    const byPosition = zeros(this.sensors.length);
    let most = 0;
    for (let at = 0; at < byPosition.length; at += 1) {
      const sensor = this.sensors[at]?.atMost(isAt(elsewhere, at), system);
      const bound = sensor ? sensor.silent * none + sensor.alive * tool : 0;
      byPosition[at] = bound;
      most = Math.max(most, bound);
    }
    return { byPosition, most };
  }
}

/** The bounds of a wheel in one system, and the most of them. */
export interface BoundsRow {
  byPosition: readonly number[];
  most: number;
}

const isAt = (bits: number, position: number): boolean => (bits & (1 << position)) !== 0;
