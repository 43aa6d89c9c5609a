import { uniformFloat64 } from 'pure-rand/distribution/uniformFloat64';
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';

/** A seeded source of chance: the same seed gives the same cars. */
export interface Chance {
  /** Uniform in [0, 1). */
  share: () => number;
  is: (probability: number) => boolean;
  between: (least: number, most: number) => number;
  normal: (mean: number, sd: number) => number;
  oneOf: <Item>(items: readonly [Item, ...Item[]]) => Item;
  /** By weight; the weights need not sum to one. */
  weighted: <Item>(items: readonly { item: Item; weight: number }[], otherwise: Item) => Item;
}

export function chanceFrom(seed: number): Chance {
  const generator = xoroshiro128plus(seed);
  const share = () => uniformFloat64(generator);
  return {
    share,
    is: (probability) => share() < probability,
    between: (least, most) => least + (most - least) * share(),
    // Box and Muller, 1958.
    normal: (mean, sd) => mean + sd * Math.sqrt(-2 * Math.log(1 - share())) * Math.cos(2 * Math.PI * share()),
    oneOf: (items) => items[Math.floor(share() * items.length)] ?? items[0],
    weighted: (items, otherwise) => {
      let left = share() * items.reduce((sum, { weight }) => sum + weight, 0);
      return items.find(({ weight }) => (left -= weight) < 0)?.item ?? otherwise;
    },
  };
}
