import { useState } from 'react';
import type { Job, LoadCase, Placard } from '../../../core/job';
import { doubtAboutPlacard } from '../../../core/job/placard';
import { parseTireSize } from '../../../core/names/tire-size';
import { figureAsTyped, format, parse, pressure, type Notation } from '../../../core/measure/units';

export const lines = ['front', 'rear', 'spare'] as const;
type Line = (typeof lines)[number];
type Column = 'usual' | 'full';
type Cell = `${Line} ${Column}`;
type Asked = Cell | `${Line} size`;

export const cells = lines.flatMap((line): Cell[] => [`${line} usual`, `${line} full`]);

interface Entry {
  text: string;
  /** What is stored, as long as nobody touches the field. */
  kept: number | undefined;
  typed: unknown;
}

type Errors = Partial<Record<Asked, string>>;

interface Typed {
  entries: Record<Cell, Entry>;
  sizes: Partial<Record<string, string>>;
  stored: (line: Line) => Placard[number] | undefined;
  doubted: Errors;
  units: Notation;
}

/** The placard as it is typed. */
export function usePlacardEntry(
  job: Job,
  units: Notation,
  onSave: (placard: Placard, loadCase: LoadCase) => void,
) {
  const stored = (position: Line) => job.placard?.find((candidate) => candidate.position === position);
  const [sizes, setSizes] = useState(() =>
    Object.fromEntries(lines.map((position) => [position, stored(position)?.size ?? ''])),
  );
  const [entries, setEntries] = useState(() => {
    const entry = (kPa: number | undefined, typed: unknown): Entry => ({
      text: kPa === undefined ? '' : figureAsTyped(pressure, kPa, units, typed),
      kept: kPa,
      typed,
    });
    return Object.fromEntries(
      lines.flatMap((position) => {
        const line = stored(position);
        return [
          [`${position} usual`, entry(line?.coldKPa, line?.typed)],
          [`${position} full`, entry(line?.fullLoadKPa, line?.typedFull)],
        ];
      }),
    ) as Record<Cell, Entry>;
  });
  const [loadCase, setLoadCase] = useState<LoadCase>(job.loadCase ?? 'usual');
  const [errors, setErrors] = useState<Errors>({});
  /** What was asked about; the same text again is meant. */
  const [doubted, setDoubted] = useState<Errors>({});

  const set = (cell: Cell, text: string) => {
    setErrors((before) => ({ ...before, [cell]: undefined }));
    setEntries((before) => ({ ...before, [cell]: { text, kept: undefined, typed: undefined } }));
  };

  const setSize = (position: Line, size: string) => {
    setErrors((before) => ({ ...before, [`${position} size`]: undefined }));
    setSizes((before) => ({ ...before, [position]: size }));
  };
  const save = () => {
    const { placard, wrong, asked } = placardFrom({ entries, sizes, stored, doubted, units });
    setErrors(wrong);
    setDoubted(asked);
    if (Object.keys(wrong).length === 0) onSave(placard, loadCase);
  };
  return { entries, set, sizes, setSize, loadCase, setLoadCase, errors, doubted, setDoubted, save };
}

/** The placard as it was typed, what is wrong with it, and what is asked about: the same text again is meant. */
function placardFrom({ entries, sizes, stored, doubted, units }: Typed) {
  const wrong: Errors = {};
  const asked: Errors = {};
  /** The figure of a cell; undefined where it is empty or something is wrong with it. */
  const read = (cell: Cell): { kPa: number; typed: unknown } | undefined => {
    const { text, kept, typed } = entries[cell];
    if (kept !== undefined) return { kPa: kept, typed };
    if (text.trim() === '') return undefined;
    const parsed = parse(pressure, text, units.pressure);
    if (!parsed.ok) {
      wrong[cell] = parsed.problem.message;
      return undefined;
    }
    const { base, value, typed: written } = parsed.value;
    const doubt = doubtAboutPlacard(base, value);
    if (doubt && doubted[cell] !== text) {
      asked[cell] = text;
      const meant =
        doubt.meant && `${value} ${doubt.meant.unit} would be ${format(pressure, doubt.meant.kPa, units)}`;
      wrong[cell] =
        `${written} is hardly a placard figure${meant ? `; ${meant}` : ''}. Type its unit, or keep it as it is.`;
    }
    return { kPa: base, typed: written };
  };
  const placard = lines.flatMap((position) => {
    const usual = read(`${position} usual`);
    const full = read(`${position} full`);
    const size = sizes[position]?.trim() ?? '';
    const parsed = size === '' ? undefined : parseTireSize(size);
    if (parsed && !parsed.ok && doubted[`${position} size`] !== size) {
      asked[`${position} size`] = size;
      wrong[`${position} size`] = `${parsed.problem.message} Saved as it is, it is compared with nothing.`;
    }
    if (!usual) {
      if (position !== 'spare' && !wrong[`${position} usual`])
        wrong[`${position} usual`] = 'Read it off the placard.';
      return [];
    }
    // Other keys of the line stay; what can be emptied here is put back only if it is there.
    const before: Partial<Placard[number]> = { ...stored(position) };
    for (const key of ['fullLoadKPa', 'typedFull', 'size']) delete before[key];
    return [
      {
        ...before,
        position,
        coldKPa: usual.kPa,
        typed: usual.typed,
        ...(full && { fullLoadKPa: full.kPa, typedFull: full.typed }),
        ...(size && { size }),
      },
    ];
  });
  return { placard, wrong, asked };
}
