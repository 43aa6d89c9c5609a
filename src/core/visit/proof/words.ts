import type { Proof, ProofItem } from '.';
import type { Standing } from './standing';

/** How one thing that must be shown stands, in a word. */
export const checkWords = { met: 'proved', unmet: 'not right', open: 'not checked' } as const;

const names: Record<ProofItem['name'], string> = {
  pressures: 'pressures',
  damage: 'where the air went',
  registration: 'IDs',
  reports: 'reception on the road',
  reset: 'the reset',
  codes: 'codes',
  lamp: 'the lamp',
};

/** How a visit stands: "Proved", "Done; not checked: IDs, codes", "Not right". */
export function standingWords(standing: Standing, { checks }: Pick<Proof, 'checks'>): string {
  switch (standing) {
    case 'proved':
      return 'Proved';
    case 'not-right':
      return 'Not right';
    case 'done': {
      const open = checks.filter(({ state }) => state === 'open').map(({ name }) => names[name]);
      return `Done; not checked: ${open.join(', ')}`;
    }
  }
}
