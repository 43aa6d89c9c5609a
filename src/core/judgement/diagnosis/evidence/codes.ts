import type { CodeAbout } from '.';
import { model } from '../model';

/** A code about one wheel, where it names which. */
export const isAboutWheel = (about: string | undefined): about is CodeAbout =>
  about === 'no-signal' || about === 'low-battery' || about === 'low-pressure';

/** A stored code weighs less than one that is active. */
export const weightOf = (status: 'active' | 'stored'): number =>
  status === 'active' ? 1 : model.codes.storedWeighs;
