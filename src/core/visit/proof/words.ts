import type { JobState } from '../../names/kinds';
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

/** How a visit stands: "Proved", "Done; not checked: IDs, codes", "Not right"; nothing is done where nothing was checked. */
export function standingWords(standing: Standing, { checks }: Pick<Proof, 'checks'>): string {
  switch (standing) {
    case 'proved':
      return 'Proved';
    case 'not-right':
      return 'Not right';
    case 'done': {
      const open = checks.filter(({ state }) => state === 'open').map(({ name }) => names[name]);
      return `${open.length < checks.length ? 'Done; not' : 'Not'} checked: ${open.join(', ')}`;
    }
  }
}

/** The same of a visit that may be under way or cancelled: then it says that, unless it is proved. */
export function visitWords(
  state: JobState,
  { standing, proof }: { standing: Standing; proof: Pick<Proof, 'checks'> },
): string {
  if (state === 'cancelled') return 'Cancelled';
  return state === 'open' && standing !== 'proved' ? 'Not finished' : standingWords(standing, proof);
}
