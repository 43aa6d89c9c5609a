import type { Seen } from '../../job';
import type { Position } from '../../names/wheel';

/** What the maker's codes of one kind of vehicle are about, and at which wheel: its profile says so. */
export type CodeTable = Record<string, { about: string; wheel?: Position | undefined }>;

export type About = NonNullable<Seen<'dtc'>['about']>;

export const aboutWords: Record<About, string> = {
  'no-signal': 'no signal from a sensor',
  'low-battery': 'a sensor battery is low',
  'low-pressure': 'low pressure',
  receiver: 'the receiver',
  'wheel-speed': 'wheel-speed data',
  baseline: 'the stored pressures',
  other: 'something else',
};

const isAbout = (text: string): text is About => Object.hasOwn(aboutWords, text);

/** What a code is about on this vehicle; nothing where its table does not have it: it is kept, and stays unknown. */
export function meaningOf(table: CodeTable, code: string): Pick<Seen<'dtc'>, 'about' | 'wheel'> {
  const known = table[code];
  if (!known) return {};
  return { about: isAbout(known.about) ? known.about : 'other', ...(known.wheel && { wheel: known.wheel }) };
}
