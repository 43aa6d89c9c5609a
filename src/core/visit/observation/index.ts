import { gaugeWarning } from '../../tire/gauge/instrument';
import type { Observation, ObservationKind, Seen } from '../../job';
import { lampWords, signWords } from '../../job/words';
import { groupedId } from '../../names/sensor-id';
import { decimal, figureAsTyped, format, pressure, temperature, type Notation } from '../../measure/units';
import type { Position } from '../../names/wheel';

/**
 * The catalogue of what can be seen: one record a kind, with how it is said, where it stands in the ledger, and what
 * of a judgement rests on it. Its shape is in the schema of the job file; the compiler names what a new kind lacks.
 */

/** Rows of the ledger an observation can stand in. */
export type Source = 'gauge' | 'sensor' | 'held' | 'live' | 'display';

interface KindRecord<Kind extends ObservationKind> {
  /** What was seen, in one short sentence of the trade, with units. */
  words: (seen: Seen<Kind>, units: Notation) => string;
  /** The row of the ledger it stands in, and at which wheels; missing where it stands in none. */
  row?: { source: Source; wheels: (seen: Seen<Kind>) => Position[] };
}

const kPa = (value: number, units: Notation) => format(pressure, value, units);
const atItsWheel = ({ wheel }: { wheel: Position }): Position[] => [wheel];

const kinds: { readonly [Kind in ObservationKind]: KindRecord<Kind> } = {
  lamp: {
    words: ({ state, bulbCheck }) =>
      `Lamp ${lampWords[state]}${bulbCheck === false ? ', no check at ignition on' : ''}`,
  },
  visual: {
    words: ({ wheel, sign }) => `${wheel}: ${signWords[sign]}`,
  },
  gauge: {
    words: (seen, units) => {
      const warmth = seen.tireC === undefined ? '' : ` at ${format(temperature, seen.tireC, units)}`;
      const shown = `${figureAsTyped(pressure, seen.kPa, units, seen.typed)} ${units.pressure}`;
      const warning = gaugeWarning(seen);
      return `Gauge at ${seen.wheel} reads ${shown}, ${seen.tire}${warmth}${warning ? `, ${warning}` : ''}`;
    },
    row: { source: 'gauge', wheels: atItsWheel },
  },
  activation: {
    words: ({ wheel, trigger, replies }, units) => {
      const [first, ...others] = replies;
      if (!first) return `${wheel} silent to the ${trigger} trigger`;
      if (others.length > 0) return `${replies.length} sensors answered at ${wheel}`;
      const details = [
        first.kPa == null ? undefined : kPa(first.kPa, units),
        first.frequencyMHz === undefined ? undefined : `${first.frequencyMHz} MHz`,
        first.family,
        first.battery === 'low' ? 'battery low' : undefined,
      ].filter(Boolean);
      return `${wheel} answers ${groupedId(first.id)}: ${details.join(', ')}`;
    },
    row: { source: 'sensor', wheels: atItsWheel },
  },
  registry: {
    words: ({ entries, codes, cleared }) => {
      const held = entries.map(({ wheel, id }) => `${wheel} ${id === null ? 'none' : groupedId(id)}`);
      const read = codes && (codes.length === 0 ? 'none' : codes.map(({ code }) => code).join(', '));
      return [
        ...(held.length > 0 ? [`Car holds ${held.join(', ')}`] : []),
        ...(read === undefined ? [] : [`codes ${cleared ? 'cleared, read again' : 'read'}: ${read}`]),
      ].join('; ');
    },
    row: { source: 'held', wheels: ({ entries }) => entries.map(({ wheel }) => wheel) },
  },
  live: {
    words: (seen, units) => {
      const speed = seen.speedKmh === undefined ? '' : ` at ${Math.round(seen.speedKmh)} km/h`;
      const battery = seen.battery === 'low' ? ', battery low' : '';
      return `Car has ${seen.kPa ? kPa(seen.kPa, units) : 'nothing'} from ${seen.wheel}${speed}${battery}`;
    },
    row: { source: 'live', wheels: atItsWheel },
  },
  display: {
    words: (seen, units) =>
      `Display shows ${seen.kPa === null ? 'nothing' : kPa(seen.kPa, units)} at ${seen.wheel}`,
    row: { source: 'display', wheels: atItsWheel },
  },
  dtc: {
    words: ({ code, status, about, wheel }) =>
      `Code ${code} ${status}: ${[about?.replace('-', ' ') ?? 'meaning not known', wheel].filter(Boolean).join(', ')}`,
  },
  reception: {
    words: ({ id, received, expected }) => `${groupedId(id)} heard ${received} of ${expected} times`,
  },
  wheelspeed: {
    words: ({ wheel, ratio }, units) =>
      `${wheel} turns ${decimal(Math.abs(ratio - 1) * 100, 2, units)} % ${ratio < 1 ? 'slower' : 'faster'} than the mean`,
  },
  voltage: {
    words: ({ volts, engine }, units) => `Supply ${decimal(volts, 1, units)} V, engine ${engine}`,
  },
  relearn: {
    words: ({ method, outcome }) => `Relearn by ${method}: ${outcome.replaceAll('-', ' ')}`,
  },
};

export const observationKinds = Object.keys(kinds) as ObservationKind[];

/** The record of an observation's kind, to be asked of this very observation. */
function recordOf<Kind extends ObservationKind>(seen: { kind: Kind }): KindRecord<Kind> {
  return kinds[seen.kind];
}

/** What was seen, in one short sentence of the trade, with units. */
export const describe = (seen: Observation, units: Notation): string =>
  recordOf<ObservationKind>(seen).words(seen as never, units);

/** The cells of the ledger an observation stands in. */
export function cellsOf(seen: Observation): { source: Source; wheel: Position }[] {
  const { row } = recordOf<ObservationKind>(seen);
  return row ? row.wheels(seen as never).map((wheel) => ({ source: row.source, wheel })) : [];
}
