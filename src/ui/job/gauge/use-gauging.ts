import { useState } from 'react';
import type { Job, Observation, Seen } from '../../../core/job';
import { aimFor } from '../../../core/tire/filling';
import {
  coldAfterHours,
  refuseHotCold,
  standOf,
  type Instrument,
  type Stand,
} from '../../../core/tire/gauge';
import { placardKPa } from '../../../core/job/placard';
import type { Column } from '../../../core/visit/column';
import { estimateTireTemperature } from '../../../core/tire/temperature';
import { format, parse, pressure, temperature, type Notation } from '../../../core/measure/units';
import { notesOf } from '../../../core/job/header';
import { type Position } from '../../../core/names/wheel';
import { shopNow, shopTime } from '../../clock';
import { noWarmth, type Warmth } from './WarmTire';
import { noMinutes, outdoorOrMeasured } from './words';

export interface Gauging {
  job: Job;
  columns: Column[];
  gauges: readonly Instrument[];
  first: Position;
  units: Notation;
  onRecord: (observation: Observation, replaces?: string) => void;
  onClose: () => void;
}

/** A placard figure this far off, as a share, is asked about: a wrong unit or a digit too many. */
const doubtful = { least: 0.4, most: 1.8 };
/** Which gauge this device was last used with. */
const lastGauge = 'hacienda.gauge';

/** A reading that is typed at a wheel: what it is held against, and how it is kept. */
export function useGauging({ job, columns, gauges, first, units, onRecord, onClose }: Gauging) {
  const [opened] = useState(shopNow);
  const [stands] = useState(() => standOf(job, notesOf(job).openedAt, opened));
  const [wheel, setWheel] = useState(first);
  const [typed, setTyped] = useState('');
  const [tire, setTire] = useState(stands?.tire);
  const [warmth, setWarmth] = useState(() => warmthOf(stands));
  const [coldTyped, setColdTyped] = useState('');
  const [gaugeId, setGaugeId] = useState(() => rememberedGauge(gauges));
  const [correcting, setCorrecting] = useState<'no' | 'yes'>('no');
  const [doubted, setDoubted] = useState(false);
  const [error, setError] = useState<string>();
  const [warmthError, setWarmthError] = useState<string>();

  const column = columns.find((candidate) => candidate.wheel === wheel);
  const before = column?.gauge;
  const cold = placardKPa(job, wheel);
  const warm = temperatureOf(tire, warmth, coldTyped, job.climate?.nowC, units);
  const tireC =
    (typeof warm === 'object' ? celsiusOf(warm) : undefined) ??
    (tire === 'cold' ? job.climate?.nowC : undefined);
  const aim = cold === undefined || tireC === undefined ? undefined : aimFor(job, wheel, cold, tireC);
  const entry = typed === '' ? undefined : parse(pressure, typed, units.pressure);
  const instrument = gauges.find(({ id }) => id === gaugeId);
  const target = aim?.kPa ?? (tire === 'cold' ? cold : undefined);
  const chooseTire = (next: 'cold' | 'warm') => {
    setTire(next);
    setWarmthError(undefined);
  };
  const type = (value: string) => {
    const [, figure, letter] = withLetter.exec(value) ?? [];
    if (letter) chooseTire(letter.toLowerCase() === 'c' ? 'cold' : 'warm');
    setTyped(figure ?? value);
    setError(undefined);
    setDoubted(false);
  };
  const choose = (next: Position) => {
    setWheel(next);
    type('');
    // What was measured at one tire says nothing of the next.
    setColdTyped('');
    setWarmth((last) => ({ ...last, typed: '' }));
    setCorrecting('no');
  };
  const chooseGauge = (id: string) => {
    setGaugeId(id);
    localStorage.setItem(lastGauge, id);
  };

  const keep = () => {
    const read = parse(pressure, typed, units.pressure);
    if (!read.ok) return setError(read.problem.message);
    if (typeof warm === 'string') return setWarmthError(warm);
    const refusal = tire && refuseHotCold(tire, celsiusOf(warm), job.climate?.nowC);
    if (refusal && !refusal.ok) return setWarmthError(refusal.problem.message);
    const share = cold === undefined ? 1 : read.value.base / cold;
    if (!doubted && read.value.base > 0 && (share < doubtful.least || share > doubtful.most)) {
      setDoubted(true);
      return setError(
        `${typed} is far from the placard's ${format(pressure, cold ?? 0, units)}. Right unit? Enter again saves it.`,
      );
    }
    if (!tire) return setWarmthError(whichStand);
    const observation: Observation = {
      kind: 'gauge',
      at: shopTime(),
      wheel,
      kPa: read.value.base,
      tire,
      typed: read.value.typed,
      ...(instrument && { gauge: instrument.id }),
      ...factsOf(warm),
    };
    onRecord(observation, correcting === 'yes' ? before?.key : undefined);
    const next = columns.find((candidate) => !candidate.gauge && candidate.wheel !== wheel);
    if (next && !before) choose(next.wheel);
    else onClose();
  };

  return {
    opened,
    wheel,
    column,
    typed,
    entry,
    error,
    tire,
    chooseTire,
    coldTyped,
    typeCold: (value: string) => {
      setColdTyped(value);
      setWarmthError(undefined);
    },
    warmth,
    warm: (next: Warmth) => {
      setWarmth(next);
      setWarmthError(undefined);
    },
    warmthError,
    cold,
    aim,
    target,
    instrument,
    gaugeId,
    chooseGauge,
    correcting,
    setCorrecting,
    type,
    choose,
    keep,
  };
}

/**
 * The gauge this device was last used with, if it is still in use. Never one that nobody chose: its
 * correction would be put on another gauge's readings.
 */
function rememberedGauge(gauges: readonly Instrument[]): string {
  const last = localStorage.getItem(lastGauge);
  return gauges.find(({ id }) => id === last)?.id ?? '';
}

/** A C or a W typed after a figure says how the tire stands, cold or warm. */
const withLetter = /^(.*\d.*?)\s*([cw])$/i;
const whichStand = `Cold or warm? Cold: it stood ${coldAfterHours} hours, or was driven under 1.5 km.`;

/** How a warm tire was driven goes on from its last reading; a temperature is measured at each. */
const warmthOf = (stands: Stand | undefined): Warmth =>
  stands?.driven
    ? {
        ...noWarmth,
        how: 'estimated',
        drive: stands.driven.drive,
        driven: String(stands.driven.minutes),
        stood: String(stands.driven.stoodMinutes),
      }
    : noWarmth;

/** What is known of the tire's temperature: it was measured, or how it was driven. */
type Known = { measuredC: number } | { driven: NonNullable<Seen<'gauge'>['driven']> };

const factsOf = (known: Known | undefined): Pick<Seen<'gauge'>, 'tireC' | 'driven'> =>
  known === undefined ? {} : 'driven' in known ? { driven: known.driven } : { tireC: known.measuredC };

function celsiusOf(known: Known | undefined): number | undefined {
  if (known === undefined) return undefined;
  if ('measuredC' in known) return known.measuredC;
  const { drive, minutes, stoodMinutes, outdoorC } = known.driven;
  return estimateTireTemperature({ outdoorC, drive, minutesDriven: minutes, minutesStood: stoodMinutes })
    .celsius;
}

/** A sentence where what was typed of the tire's temperature is none. */
function temperatureOf(
  tire: Stand['tire'] | undefined,
  warmth: Warmth,
  coldTyped: string,
  outdoorC: number | undefined,
  units: Notation,
): Known | string | undefined {
  if (!tire) return undefined;
  const typed = tire === 'cold' ? coldTyped : warmth.how === 'measured' ? warmth.typed : '';
  if (typed.trim() !== '') {
    const read = parse(temperature, typed, units.temperature);
    return read.ok ? { measuredC: read.value.base } : read.problem.message;
  }
  if (tire === 'cold' || warmth.how !== 'estimated') return undefined;
  if (outdoorC === undefined) return outdoorOrMeasured;
  const figures = [warmth.driven, warmth.stood].map((text) =>
    text.trim() === '' ? 0 : Number(text.replace(',', '.')),
  );
  const [minutes = Number.NaN, stoodMinutes = Number.NaN] = figures;
  const possible = [minutes, stoodMinutes].every((n) => Number.isFinite(n) && n >= 0 && n <= 10_000);
  if (!possible) return noMinutes;
  return { driven: { drive: warmth.drive, minutes, stoodMinutes, outdoorC } };
}
