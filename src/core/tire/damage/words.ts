import type { Damage } from '.';
import type { DamageSign } from '../../names/kinds';

const signWords: Record<DamageSign, string> = {
  flat: 'seen flat',
  object: 'an object in the tread',
  sidewall: 'a damaged sidewall',
  'stem-damaged': 'a damaged stem',
};

/** What stands against a tire: "an object in the tread, found at 45 kPa and filled"; the figure as it is shown. */
export const damageWords = ({ signs, found }: Damage, shown: (kPa: number) => string): string =>
  [
    ...signs.map((sign) => signWords[sign]),
    ...(found ? [`found at ${shown(found.kPa)} and filled`] : []),
  ].join(', ');
