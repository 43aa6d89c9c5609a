import { failure, success, type Result } from '../../result';
import { kilogramsOf } from './load';

export { kilogramsOf, kmhOf, loadCapacityKg, newPlacardKPa, type NewPlacard } from './load';
export { compareAxles, compareSizes, rollingMm } from './fit';
export type { Fit, FitVerdict } from './fit';

/** How much air a tire is built for, which is what the lamp's fixed minimum goes by. */
export type TireClass = 'standard-load' | 'extra-load' | 'load-range-C' | 'load-range-D' | 'load-range-E';

/** A tire size as it stands on the sidewall, with what follows from it. */
export interface TireSize {
  kind: 'metric' | 'p-metric' | 'lt-metric' | 'commercial' | 'temporary' | 'high-flotation';
  /** As it is written on a placard: "215/55R17". */
  text: string;
  widthMm: number;
  /** Height of the sidewall as a share of the width, in percent. */
  aspect: number;
  construction: 'radial' | 'diagonal';
  rimInch: number;
  /** Outer diameter of the new tire, mm, not loaded. */
  diameterMm: number;
  class: TireClass;
  /** Of the single tire; a second index is for twin mounting. */
  loadIndex?: number;
  twinLoadIndex?: number;
  speedSymbol?: string;
}

const inchMm = 25.4;
/** A high-flotation size gives its section width in inches too. */
const metricForm = /^(P|LT|T)?(\d{3})\/(\d{2})(?:ZR|R|D|B|-)(\d{2}(?:\.5)?)(C|LT)?(.*)$/;
const flotationForm = /^(\d{2}(?:\.\d+)?)X(\d{1,2}(?:\.\d+)?)(?:R|D|-)(\d{2}(?:\.5)?)(LT|C)?(.*)$/;
const serviceForm = /^(?:(\d{2,3})(?:\/(\d{2,3}))?([A-Z]\d?))?(XL|RF|EXTRALOAD|C|D|E)?$/;

/**
 * Reads a tire size: "215/55R17 94V", "P225/60R16 97T", "LT245/75R16 120/116S E", "195/70R15C 104/102R",
 * "T125/70D15", "31x10.50R15LT". Outer diameter: twice the sidewall and the rim (ETRTO); a high-flotation
 * size names it in inches. Problems: `not-a-size`, `impossible-size`.
 */
export function parseTireSize(typed: string): Result<TireSize> {
  const text = typed
    .toUpperCase()
    .replace(/[\s()]+/g, '')
    .replace('×', 'X');
  const metric = metricForm.exec(text);
  const flotation = metric ? null : flotationForm.exec(text);
  const match = metric ?? flotation;
  const service = match && serviceForm.exec((match.at(-1) ?? '').replace(/^[,;-]/, ''));
  if (!match || !service) {
    return failure(
      'not-a-size',
      'Type the size as it stands on the sidewall: 215/55R17 94V, or 31x10.50R15LT.',
    );
  }
  const { shape, text: shown, commercial } = metric ? metricShape(metric) : flotationShape(match);
  const loadIndex = service[1] === undefined ? undefined : Number(service[1]);
  const twinLoadIndex = service[2] === undefined ? undefined : Number(service[2]);
  if (loadIndex !== undefined && kilogramsOf(loadIndex) === undefined) {
    return failure(
      'impossible-size',
      `A load index of ${loadIndex} is not in the table (50 to 130). Read it again.`,
    );
  }
  const fits = shape.widthMm >= 95 && shape.widthMm <= 405 && shape.aspect >= 20 && shape.aspect <= 95;
  if (!fits || shape.rimInch < 10 || shape.rimInch > 26) {
    return failure(
      'impossible-size',
      'No road tire has these figures: width 95 to 405 mm, aspect 20 to 95, rim 10 to 26. Read it again.',
    );
  }
  return success({
    ...shape,
    text: shown,
    class: classOf(shape.kind, service[4], commercial),
    ...(loadIndex !== undefined && { loadIndex }),
    ...(twinLoadIndex !== undefined && { twinLoadIndex }),
    ...(service[3] && { speedSymbol: service[3] }),
  });
}

type Shape = Pick<TireSize, 'kind' | 'widthMm' | 'aspect' | 'construction' | 'rimInch' | 'diameterMm'>;
interface Read {
  shape: Shape;
  text: string;
  commercial: boolean;
}

function metricShape(match: RegExpExecArray): Read {
  const [, prefix = '', width = '', aspect = '', rim = '', suffix = ''] = match;
  const letter = /\d(ZR|R|D|B|-)\d/.exec(match[0])?.[1] ?? 'R';
  const widthMm = Number(width);
  const rimInch = Number(rim);
  const kinds = { P: 'p-metric', LT: 'lt-metric', T: 'temporary' } as const;
  return {
    shape: {
      kind:
        prefix === ''
          ? suffix
            ? 'commercial'
            : 'metric'
          : (kinds[prefix as keyof typeof kinds] ?? 'metric'),
      widthMm,
      aspect: Number(aspect),
      construction: letter === 'R' || letter === 'ZR' ? 'radial' : 'diagonal',
      rimInch,
      diameterMm: (2 * widthMm * Number(aspect)) / 100 + rimInch * inchMm,
    },
    text: `${prefix}${width}/${aspect}${letter}${rim}${suffix}`,
    commercial: suffix !== '',
  };
}

function flotationShape(match: RegExpExecArray): Read {
  const [, diameter = '', width = '', rim = '', suffix = ''] = match;
  const [diameterMm, widthMm] = [Number(diameter) * inchMm, Number(width) * inchMm];
  const rimInch = Number(rim);
  return {
    shape: {
      kind: 'high-flotation',
      widthMm,
      aspect: ((diameterMm - rimInch * inchMm) / 2 / widthMm) * 100,
      construction: /R\d/.test(match[0]) ? 'radial' : 'diagonal',
      rimInch,
      diameterMm,
    },
    text: `${diameter}x${width}${/R\d/.test(match[0]) ? 'R' : '-'}${rim}${suffix}`,
    commercial: true,
  };
}

function classOf(kind: TireSize['kind'], mark: string | undefined, commercial: boolean): TireClass {
  if (mark === 'XL' || mark === 'RF' || mark === 'EXTRALOAD') return 'extra-load';
  if (mark === 'D') return 'load-range-D';
  if (mark === 'E') return 'load-range-E';
  // A light-truck or commercial size that names no load range has at least C.
  if (mark === 'C' || kind === 'lt-metric' || commercial) return 'load-range-C';
  return 'standard-load';
}

/** The class of the size a placard or sidewall names, where it can be read. */
export function tireClassOf(size: string | undefined): TireClass | undefined {
  const parsed = size === undefined ? undefined : parseTireSize(size);
  return parsed?.ok ? parsed.value.class : undefined;
}
