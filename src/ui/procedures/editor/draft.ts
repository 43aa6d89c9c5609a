import { type Procedure, type Step } from '../../../core/relearn/procedure';
import { problemsOf, readProcedure } from '../../../core/relearn/procedure/problems';
import { procedureSchema } from '../../../core/relearn/procedure/schema';

/** A procedure while it is written: a document that may not be one yet. */
export type Draft = Readonly<Record<string, unknown>>;
export type Path = readonly (string | number)[];

export const emptyDraft: Draft = {
  format: 'hacienda.procedure/1',
  name: '',
  title: '',
  method: 'tool',
  for: { profiles: [] },
  wheels: ['LF', 'RF', 'RR', 'LR'],
  optional: [],
  before: ['parking-brake', 'engine-off'],
  enter: [],
  each: [],
  finish: [],
  proof: ['registry'],
  limits: {},
  cues: [],
};

/** What stands at a place of it. */
export const at = (draft: unknown, [key, ...rest]: Path): unknown =>
  key === undefined
    ? draft
    : typeof draft === 'object' && draft !== null
      ? at((draft as Record<string | number, unknown>)[key], rest)
      : undefined;

/** The draft with another value at a place; undefined takes the key away. */
export function withAt<Value>(draft: Value, [key, ...rest]: Path, value: unknown): Value {
  if (key === undefined) return value as Value;
  if (Array.isArray(draft)) {
    const list: unknown[] = [...(draft as unknown[])];
    list[Number(key)] = withAt(list[Number(key)], rest, value);
    return list as Value;
  }
  const { [key]: before, ...others } = (draft ?? {}) as Record<string | number, unknown>;
  const next = withAt(before, rest, value);
  return (next === undefined ? others : { ...(draft ?? {}), [key]: next }) as Value;
}

/** What is still wrong with a draft, place by place, in words of the trade. */
export interface Wrong {
  path: string;
  message: string;
}

export function wrongIn(draft: Draft): Wrong[] {
  const parsed = procedureSchema.safeParse(draft);
  if (parsed.success) return problemsOf(parsed.data, new Date());
  return parsed.error.issues.map(({ path, code }) => ({
    path: path.map(String).join('.'),
    message: code === 'too_big' ? 'this is more than it can be' : 'fill this in',
  }));
}

/** The procedure, once nothing is wrong with it. */
export function procedureFrom(draft: Draft): Procedure | undefined {
  const read = readProcedure(draft, new Date());
  return read.ok ? read.procedure : undefined;
}

/** A step of a kind as it begins. */
export const newSteps: { [Kind in Step['do']]: object } = {
  set: { do: 'set', what: 'ignition', to: 'on' },
  press: { do: 'press', what: 'brake', times: 1 },
  hold: { do: 'hold', what: '', leastS: 0 },
  menu: { do: 'menu', path: [] },
  wait: { do: 'wait', s: 10 },
  cue: { do: 'cue', means: 'entered' },
  drive: { do: 'drive', leastKmh: 40, leastS: 600, unbroken: false },
  wake: { do: 'wake' },
  air: { do: 'air' },
  magnet: { do: 'magnet' },
  write: { do: 'write' },
};

/** What can be said of each kind of step. */
export type StepField =
  | { key: string; label: string; type: 'text' | 'path' | 'flag' }
  /** `optional`: may be left empty. */
  | { key: string; label: string; type: 'number'; optional?: true }
  | { key: string; label: string; type: 'meaning' };

export const stepFields: { [Kind in Step['do']]: readonly StepField[] } = {
  set: [
    { key: 'what', label: 'What', type: 'text' },
    { key: 'to', label: 'To', type: 'text' },
  ],
  press: [
    { key: 'what', label: 'What', type: 'text' },
    { key: 'times', label: 'Times', type: 'number' },
    { key: 'withinS', label: 'Within, s', type: 'number', optional: true },
  ],
  hold: [
    { key: 'what', label: 'What', type: 'text' },
    { key: 'leastS', label: 'Least, s', type: 'number' },
    { key: 'mostS', label: 'Most, s', type: 'number', optional: true },
  ],
  menu: [{ key: 'path', label: 'Menu, entry by entry, with > between', type: 'path' }],
  wait: [{ key: 's', label: 'Seconds', type: 'number' }],
  cue: [
    { key: 'means', label: 'Until the car says', type: 'meaning' },
    { key: 'withinS', label: 'Within, s', type: 'number', optional: true },
  ],
  drive: [
    { key: 'leastKmh', label: 'At least, km/h', type: 'number' },
    { key: 'leastS', label: 'For, s', type: 'number' },
    { key: 'unbroken', label: 'Without a break', type: 'flag' },
  ],
  wake: [],
  air: [],
  magnet: [],
  write: [],
};

export const stepNames: Record<Step['do'], string> = {
  set: 'Switch something',
  press: 'Press',
  hold: 'Hold',
  menu: 'Choose in a menu',
  wait: 'Wait',
  cue: 'Wait for a cue',
  drive: 'Drive',
  wake: 'Wake the sensor with the tool',
  air: 'Let air out',
  magnet: 'Hold the magnet',
  write: 'Register the IDs',
};
