import { useEffect, useState } from 'react';
import type { Job, Observation, Seen } from '../../../core/job';
import { fillingCaution } from '../../../core/cautions';
import { aimFor } from '../../../core/filling';
import {
  coldAfterHours,
  corrected,
  refuseHotCold,
  standOf,
  calibrationStatusOf,
  calibrationStatusWords,
  type Instrument,
  type Stand,
} from '../../../core/gauge';
import { placardKPa, placardToleranceKPa } from '../../../core/placard';
import type { Column } from '../../../core/ledger/column';
import { estimateTireTemperature } from '../../../core/tire-temperature';
import {
  figure,
  format,
  formatDifference,
  parse,
  pressure,
  temperature,
  type UnitChoice,
} from '../../../core/units';
import { notesOf } from '../../../core/visit/notes';
import type { PracticeCar } from '../../../core/visit/view';
import { positionName, type Position } from '../../../core/wheel';
import { ask } from '../../api';
import { shopNow, shopTime } from '../../clock';
import { Button } from '../../kit/Button';
import { Dialog } from '../../kit/Dialog';
import { Choice, Field, Select } from '../../kit/Field';
import { Keypad } from '../../kit/Keypad';
import { Notice } from '../../kit/Notice';
import styles from './GaugeDialog.module.css';
import { noWarmth, WarmTire, type Warmth } from './WarmTire';
import { noMinutes, outdoorOrMeasured } from './words';

interface GaugeDialogProps {
  jobId: string;
  job: Job;
  columns: Column[];
  gauges: readonly Instrument[];
  first: Position;
  units: UnitChoice;
  practice: boolean;
  onRecord: (observation: Observation, replaces?: string) => void;
  onLosses: (wheel: Position) => void;
  onClose: () => void;
}

/** A placard figure this far off, as a share, is asked about: a wrong unit or a digit too many. */
const doubtful = { least: 0.4, most: 1.8 };
/** Which gauge this device was last used with. */
const lastGauge = 'hacienda.gauge';

/** Readings in walking order: type, Enter, next wheel. */
export function GaugeDialog(props: GaugeDialogProps) {
  const { jobId, job, columns, gauges, first, units, practice, onRecord, onClose } = props;
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
        `${typed} is far from the placard's ${format(pressure, cold ?? 0, units.pressure)}. Right unit? Enter again saves it.`,
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

  return (
    <Dialog title={`Gauge, ${positionName[wheel]}`} onClose={onClose}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          keep();
        }}
        className={styles.side}
      >
        <div className={styles.wheels} role="group" aria-label="Wheel">
          {columns.map((candidate) => (
            <button
              key={candidate.wheel}
              type="button"
              className={styles.wheel}
              aria-pressed={candidate.wheel === wheel}
              onClick={() => choose(candidate.wheel)}
            >
              <b>{candidate.wheel}</b>
              <span className="figures">
                {candidate.gauge ? figure(pressure, candidate.gauge.kPa, units.pressure) : '–'}
              </span>
            </button>
          ))}
        </div>
        <div className={styles.entry}>
          <div className={styles.side}>
            <Field
              key={wheel}
              label={`Reading, ${units.pressure}`}
              // By touch the keys beside it are there; the device's own would cover them.
              inputMode={byTouch() ? 'none' : 'decimal'}
              value={typed}
              onValue={type}
              error={error}
              data-first
              autoFocus // eslint-disable-line jsx-a11y/no-autofocus -- the dialog was opened to type this
            />
            <div className={styles.difference} aria-live="polite">
              {entry?.ok && target !== undefined && (
                <Difference
                  kPa={
                    (instrument ? corrected(instrument, entry.value.base, opened).kPa : entry.value.base) -
                    target
                  }
                  aim={
                    Math.abs(target - (cold ?? 0)) < 0.05
                      ? 'placard'
                      : format(pressure, target, units.pressure)
                  }
                  units={units}
                />
              )}
              {target !== undefined && !entry?.ok && `Aim for ${format(pressure, target, units.pressure)}`}
              {entry?.ok && instrument && (
                <Corrected instrument={instrument} readKPa={entry.value.base} moment={opened} units={units} />
              )}
            </div>
            <Choice
              label="The tire is"
              options={[
                { value: 'cold', label: 'cold' },
                { value: 'warm', label: 'warm' },
              ]}
              value={tire}
              onValue={chooseTire}
            />
            {!tire && warmthError && (
              <p role="alert" className={styles.ask}>
                {warmthError}
              </p>
            )}
            {tire === 'cold' && (
              <Field
                label={`Tire temperature, ${units.temperature}, if measured`}
                value={coldTyped}
                onValue={(value) => {
                  setColdTyped(value);
                  setWarmthError(undefined);
                }}
                error={warmthError}
                placeholder={
                  job.climate?.nowC === undefined
                    ? undefined
                    : figure(temperature, job.climate.nowC, units.temperature)
                }
              />
            )}
          </div>
          <Keypad value={typed} onValue={type} />
        </div>
        {tire === 'warm' && (
          <WarmTire
            warmth={warmth}
            outdoorC={job.climate?.nowC}
            units={units}
            error={warmthError}
            onWarmth={(next) => {
              setWarmth(next);
              setWarmthError(undefined);
            }}
          />
        )}
        {gauges.length > 0 && (
          <Select
            label="Gauge"
            value={gaugeId}
            onValue={chooseGauge}
            hint={
              instrument
                ? calibrationStatusWords[calibrationStatusOf(instrument, opened).kind]
                : 'Not on the register: its error is not known.'
            }
            options={[
              ...gauges.map(({ id, name }) => ({ value: id, label: name })),
              { value: '', label: 'another gauge' },
            ]}
          />
        )}
        {before?.key && (
          <Choice
            label={`There is a reading of ${figure(pressure, before.kPa, units.pressure)}`}
            options={[
              { value: 'no', label: 'this is a new one' },
              { value: 'yes', label: 'that was wrong' },
            ]}
            value={correcting}
            onValue={setCorrecting}
          />
        )}
        {practice && target !== undefined && (
          <PracticeAir jobId={jobId} wheel={wheel} targetKPa={target} units={units} />
        )}
        {aim?.cappedAtKPa !== undefined && (
          <Notice tone="note">
            The sidewall's maximum of {format(pressure, aim.cappedAtKPa, units.pressure)} limits the target.
          </Notice>
        )}
        {column?.target?.advice === 'let-cool' && (
          <Notice tone="note">
            Do not bleed it: the tire is hot, and short of air once it is cold. Let it cool and read it again.
          </Notice>
        )}
        {before && <p className={styles.caution}>{fillingCaution}</p>}
        <div className={styles.actions}>
          <Button weight="main" type="submit" disabled={typed === ''}>
            Save {wheel}
          </Button>
          <Button onClick={() => props.onLosses(wheel)}>Losses at {wheel}</Button>
        </div>
      </form>
    </Dialog>
  );
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

const byTouch = (): boolean => matchMedia('(pointer: coarse)').matches;

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
  units: UnitChoice,
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

function Difference({ kPa, aim, units }: { kPa: number; aim: string; units: UnitChoice }) {
  const where = Math.abs(kPa) <= placardToleranceKPa ? 'at' : kPa < 0 ? 'below' : 'above';
  return (
    <>
      <span className="figures">{formatDifference(pressure, kPa, units.pressure)}</span> {where} {aim}
    </>
  );
}

/** What the reading is once the gauge's own error is out of it. */
function Corrected({
  instrument,
  readKPa,
  moment,
  units,
}: {
  instrument: Instrument;
  readKPa: number;
  moment: number;
  units: UnitChoice;
}) {
  const { kPa, uncertaintyKPa } = corrected(instrument, readKPa, moment);
  const same = figure(pressure, kPa, units.pressure) === figure(pressure, readKPa, units.pressure);
  return (
    <span className={styles.corrected}>
      {same ? '' : `corrected ${format(pressure, kPa, units.pressure)} `}
      {formatDifference(pressure, uncertaintyKPa, units.pressure).replace('+', '± ')}
    </span>
  );
}

/** The simulated tire's own pressure, and an air hose for it. */
function PracticeAir({
  jobId,
  wheel,
  targetKPa,
  units,
}: {
  jobId: string;
  wheel: Position;
  targetKPa: number;
  units: UnitChoice;
}) {
  const [car, setCar] = useState<PracticeCar>();
  useEffect(() => {
    void ask('practiceCar', { id: jobId }).then((seen) => seen.ok && setCar(seen.value));
  }, [jobId]);
  const stands = car?.kPa[wheel];
  const tireC = car?.tireC[wheel];
  const fill = async () => {
    const kPa = Math.round(targetKPa);
    const filled = await ask('practise', { id: jobId, body: { do: 'air', wheel, kPa } });
    if (filled.ok && 'lamp' in filled.value) setCar(filled.value);
  };
  return (
    <div className={styles.practice}>
      <span>
        Simulated gauge:{' '}
        <b className="figures">{stands === undefined ? '…' : format(pressure, stands, units.pressure)}</b>
        {tireC !== undefined && `, tire at ${format(temperature, tireC, units.temperature)}`}
      </span>
      <Button onClick={() => void fill()}>Set air to {figure(pressure, targetKPa, units.pressure)}</Button>
    </div>
  );
}
