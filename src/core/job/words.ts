import { gaugeWarning } from '../gauge/instrument';
import { figureAsTyped, format, pressure, temperature, type UnitChoice } from '../units';
import { groupedId } from '../sensor-id';
import type { Observation, Seen, Service } from '.';

export const lampWords: Record<Seen<'lamp'>['state'], string> = {
  off: 'off',
  steady: 'on, steady',
  'flash-then-steady': 'flashes, then steady',
  'flash-while-driving': 'flashes now and then on the road',
};

export const serviceWords: Record<Service['kind'], string> = {
  none: 'nothing lately',
  'tires-fitted': 'tires fitted',
  rotation: 'wheels rotated',
  'wheels-swapped': 'other wheels put on',
  'sensor-replaced': 'sensor replaced',
  repair: 'tire repaired',
};

export const signWords: Record<Seen<'visual'>['sign'], string> = {
  flat: 'flat',
  object: 'object in the tread',
  sidewall: 'sidewall damaged',
  'stem-damaged': 'stem damaged',
  'stem-metal': 'metal stem',
  'stem-rubber': 'rubber stem',
  'odd-size': 'odd size',
};

/** What was seen, in one short sentence of the trade, with units. */
export function describe(seen: Observation, units: UnitChoice): string {
  const kPa = (value: number) => format(pressure, value, units.pressure);
  switch (seen.kind) {
    case 'lamp':
      return `Lamp ${lampWords[seen.state]}${seen.bulbCheck === false ? ', no check at ignition on' : ''}`;
    case 'visual':
      return `${seen.wheel}: ${signWords[seen.sign]}`;
    case 'gauge': {
      const warmth =
        seen.tireC === undefined ? '' : ` at ${format(temperature, seen.tireC, units.temperature)}`;
      const shown = `${figureAsTyped(pressure, seen.kPa, units.pressure, seen.typed)} ${units.pressure}`;
      const warning = gaugeWarning(seen);
      return `Gauge at ${seen.wheel} reads ${shown}, ${seen.tire}${warmth}${warning ? `, ${warning}` : ''}`;
    }
    case 'activation': {
      const [first, ...others] = seen.replies;
      if (!first) return `${seen.wheel} silent to the ${seen.trigger} trigger`;
      if (others.length > 0) return `${seen.replies.length} sensors answered at ${seen.wheel}`;
      const details = [
        first.kPa == null ? undefined : kPa(first.kPa),
        first.frequencyMHz === undefined ? undefined : `${first.frequencyMHz} MHz`,
        first.family,
        first.battery === 'low' ? 'battery low' : undefined,
      ].filter(Boolean);
      return `${seen.wheel} answers ${groupedId(first.id)}: ${details.join(', ')}`;
    }
    case 'registry':
      return `Car holds ${seen.entries.map(({ wheel, id }) => `${wheel} ${id === null ? 'none' : groupedId(id)}`).join(', ')}`;
    case 'live': {
      const speed = seen.speedKmh === undefined ? '' : ` at ${Math.round(seen.speedKmh)} km/h`;
      return `Car has ${seen.kPa ? kPa(seen.kPa) : 'nothing'} from ${seen.wheel}${speed}`;
    }
    case 'display':
      return `Display shows ${seen.kPa === null ? 'nothing' : kPa(seen.kPa)} at ${seen.wheel}`;
    case 'dtc':
      return `Code ${seen.code} ${seen.status}: ${[seen.about?.replace('-', ' ') ?? 'meaning not known', seen.wheel].filter(Boolean).join(', ')}`;
    case 'reception':
      return `${groupedId(seen.id)} heard ${seen.received} of ${seen.expected} times`;
    case 'wheelspeed':
      return `${seen.wheel} turns at ${((seen.ratio - 1) * 100).toFixed(2)} % of the mean`;
    case 'voltage':
      return `Supply ${seen.volts.toFixed(1)} V, engine ${seen.engine}`;
    case 'relearn':
      return `Relearn by ${seen.method}: ${seen.outcome.replaceAll('-', ' ')}`;
  }
}

/** How sure, in a word. */
export function sureness(probability: number): string {
  if (probability >= 0.97) return 'Sure';
  if (probability >= 0.9) return 'Very likely';
  return probability >= 0.7 ? 'Likely' : 'Possible';
}

/** Never "100 %": nothing measured is that sure. */
export const percent = (probability: number): string =>
  probability > 0.99 ? 'over 99 %' : `${Math.round(probability * 100)} %`;
