import { useState } from 'react';
import type { Fitted, Job } from '../../../core/job';
import { raisedFigures, type LampFigures } from '../../../core/car/lamp';
import { writeVerdict } from '../../../core/job/car-write';
import { makerKPa, placardKPa, placardSize } from '../../../core/job/placard';
import { compareAxles, compareSizes, newPlacardKPa, parseTireSize } from '../../../core/names/tire-size';
import { figure, format, parse, pressure, type Notation } from '../../../core/measure/units';
import { Button } from '../../kit/Button';
import { Dialog } from '../../kit/Dialog';
import { Field } from '../../kit/Field';
import { Notice } from '../../kit/Notice';
import { fitWords } from '../../../core/names/tire-size/words';
import styles from '../../kit/Forms.module.css';

const axles = [
  { position: 'front', wheel: 'LF' },
  { position: 'rear', wheel: 'RR' },
  { position: 'spare', wheel: 'SP' },
] as const;
type Axle = (typeof axles)[number]['position'];

/** What is on the car, read off the sidewalls, against what the placard asks for. */
export function TiresDialog({
  job,
  units,
  busy,
  problem,
  onSave,
  onAim,
  onLampFigures,
  onClose,
}: {
  job: Job;
  units: Notation;
  busy: string | undefined;
  problem: string | undefined;
  onSave: (fitted: Fitted) => void;
  /** Aims at another cold pressure than the maker's for an axle. */
  onAim: (position: Axle, kPa: number) => void;
  /** Missing where the car's receiver takes none, or nobody can reach it from here. */
  onLampFigures: ((figures: LampFigures) => void) | undefined;
  onClose: () => void;
}) {
  const [entries, setEntries] = useState(() =>
    Object.fromEntries(
      axles.map(({ position }) => {
        const line = job.fitted?.find((candidate) => candidate.position === position);
        const most = line?.maxKPa === undefined ? '' : figure(pressure, line.maxKPa, units);
        return [position, { size: line?.size ?? '', most, kept: line?.maxKPa }];
      }),
    ),
  );
  const [errors, setErrors] = useState<Partial<Record<`${Axle} ${'size' | 'most'}`, string>>>({});
  const set = (position: Axle, part: { size?: string; most?: string }) => {
    setErrors({});
    setEntries((now) => {
      const before = now[position] ?? { size: '', most: '', kept: undefined };
      return {
        ...now,
        [position]: { ...before, ...part, ...(part.most !== undefined && { kept: undefined }) },
      };
    });
  };

  const save = () => {
    const wrong: typeof errors = {};
    const fitted = axles.flatMap(({ position }) => {
      const { size = '', most = '', kept } = entries[position] ?? {};
      const before = job.fitted?.find((candidate) => candidate.position === position);
      const parsed = size.trim() === '' ? undefined : parseTireSize(size);
      if (parsed && !parsed.ok) wrong[`${position} size`] = parsed.problem.message;
      const limit = most.trim() === '' ? undefined : parse(pressure, most, units.pressure);
      if (limit && !limit.ok) wrong[`${position} most`] = limit.problem.message;
      const maxKPa = kept ?? (limit?.ok ? limit.value.base : undefined);
      const rest: Partial<Fitted[number]> = { ...before };
      for (const key of ['maxKPa', 'size']) delete rest[key];
      if (!parsed && maxKPa === undefined) return [];
      return [
        { ...rest, position, ...(parsed && { size: size.trim() }), ...(maxKPa !== undefined && { maxKPa }) },
      ];
    });
    setErrors(wrong);
    if (Object.keys(wrong).length === 0) onSave(fitted);
  };
  return (
    <Dialog title="Tires on the car" onClose={onClose} wide>
      <form
        className={styles.form}
        onSubmit={(event) => {
          event.preventDefault();
          save();
        }}
      >
        {axles.map(({ position, wheel }) => {
          const asked = placardSize(job, wheel);
          return (
            <div key={position} className={styles.form}>
              <div className={styles.row}>
                <Field
                  label={`Size, ${position}`}
                  value={entries[position]?.size ?? ''}
                  onValue={(size) => set(position, { size })}
                  hint={asked ? `Placard: ${asked}` : 'The placard names no size.'}
                  error={errors[`${position} size`]}
                />
                <Field
                  label={`Sidewall maximum, ${position}, ${units.pressure}`}
                  inputMode="decimal"
                  value={entries[position]?.most ?? ''}
                  onValue={(most) => set(position, { most })}
                  error={errors[`${position} most`]}
                />
              </div>
              <FitOf job={job} wheel={wheel} size={entries[position]?.size ?? ''} units={units} />
              <Wanted
                {...{ job, wheel, position, units, busy, onAim }}
                size={entries[position]?.size ?? ''}
                most={entries[position]?.most ?? ''}
              />
            </div>
          );
        })}
        <Staggered job={job} front={entries.front?.size ?? ''} rear={entries.rear?.size ?? ''} />
        <Lamp {...{ job, units, busy, onLampFigures }} />
        {problem && <Notice tone="wrong">{problem}</Notice>}
        <Button weight="main" type="submit" busy={busy}>
          Save the tires
        </Button>
      </form>
    </Dialog>
  );
}

/** Other tires on purpose: the cold pressure at which they carry what the placard's carry. */
function Wanted({
  job,
  wheel,
  position,
  size,
  most,
  units,
  busy,
  onAim,
}: {
  job: Job;
  wheel: 'LF' | 'RR' | 'SP';
  position: Axle;
  size: string;
  most: string;
  units: Notation;
  busy: string | undefined;
  onAim: (position: Axle, kPa: number) => void;
}) {
  const fitted = parseTireSize(size);
  const asked = parseTireSize(placardSize(job, wheel) ?? '');
  const aimed = placardKPa(job, wheel);
  const maker = makerKPa(job, wheel);
  if (!fitted.ok || !asked.ok || maker === undefined) return null;
  const limit = most.trim() === '' ? undefined : parse(pressure, most, units.pressure);
  const wanted = newPlacardKPa(asked.value, fitted.value, maker, limit?.ok ? limit.value.base : undefined);
  const shown = (kPa: number) => format(pressure, kPa, units);
  if (wanted.kind === 'over-maximum')
    return (
      <Notice tone="wrong">
        To carry as much they would want {shown(wanted.kPa)}, above their sidewall’s maximum: other tires.
      </Notice>
    );
  if (wanted.kind !== 'kPa') return null;
  return aimed === wanted.kPa ? (
    <Notice tone="right">
      {shown(wanted.kPa)} cold is aimed at, in place of the maker’s {shown(maker)}.
    </Notice>
  ) : (
    <Notice
      tone="note"
      action={
        <Button busy={busy} onClick={() => onAim(position, wanted.kPa)}>
          Aim for {shown(wanted.kPa)}
        </Button>
      }
    >
      To carry what the placard’s tires carry at {shown(maker)} these want {shown(wanted.kPa)} cold (load
      falls with pressure to the power of 0.8 and less, ETRTO, from memory). What the vehicle maker says comes
      first; the car’s own lamp goes on watching by its own figure, and this does not silence it.
    </Notice>
  );
}

/** Where the receiver takes them: the lamp's own figures for the raised pressure, sent and read back. */
function Lamp({
  job,
  units,
  busy,
  onLampFigures,
}: {
  job: Job;
  units: Notation;
  busy: string | undefined;
  onLampFigures: ((figures: LampFigures) => void) | undefined;
}) {
  const raised = raisedFigures(job);
  if (!raised || raised.lowOnKPa === job.vehicle.tpms.lowOnKPa) return null;
  const shown = ({ lowOnKPa, lowOffKPa }: LampFigures) =>
    `on at ${format(pressure, lowOnKPa, units)}, out at ${format(pressure, lowOffKPa, units)}`;
  const last = job.carWrites?.findLast((write) => write.kind === 'thresholds');
  const verdict = last && writeVerdict(last);
  if (last?.kind === 'thresholds' && verdict === 'worked' && last.asked.lowOnKPa === raised.lowOnKPa)
    return <Notice tone="right">The car’s lamp is set for it, read back: {shown(raised)}.</Notice>;
  if (!onLampFigures)
    return (
      <Notice tone="note">
        For this pressure the lamp would be {shown(raised)}. From here the car cannot be given that: where its
        maker provides for it, another tool can.
      </Notice>
    );
  return (
    <Notice
      tone={last ? 'wrong' : 'note'}
      action={
        <Button busy={busy} onClick={() => onLampFigures(raised)}>
          {last ? 'Send them again' : 'Send them to the car'}
        </Button>
      }
    >
      {last && <>{last.reason ?? 'Read back, the car does not have them.'} </>}
      This car takes other figures for its lamp. For this pressure: {shown(raised)}. It goes on watching; only
      do this where the vehicle maker provides for it.
    </Notice>
  );
}

function FitOf({
  job,
  wheel,
  size,
  units,
}: {
  job: Job;
  wheel: 'LF' | 'RR' | 'SP';
  size: string;
  units: Notation;
}) {
  const fitted = parseTireSize(size);
  const asked = parseTireSize(placardSize(job, wheel) ?? '');
  if (!fitted.ok || !asked.ok) return null;
  const cold = placardKPa(job, wheel);
  const fit = compareSizes(asked.value, fitted.value, makerKPa(job, wheel), cold);
  const { verdict, good, details } = fitWords(
    fit,
    cold === undefined ? undefined : format(pressure, cold, units),
  );
  return (
    <Notice tone={good ? 'right' : 'note'}>
      <b>{verdict}</b> {details.join(', ')}.
    </Notice>
  );
}

/** Axles of different sizes are right where the placard has them so: what counts is that their ratio stays. */
function Staggered({ job, front, rear }: { job: Job; front: string; rear: string }) {
  const [askedFront, askedRear, fittedFront, fittedRear] = [
    placardSize(job, 'LF') ?? '',
    placardSize(job, 'RR') ?? '',
    front,
    rear,
  ].map(parseTireSize);
  if (!askedFront?.ok || !askedRear?.ok || !fittedFront?.ok || !fittedRear?.ok) return null;
  const share = compareAxles(
    { front: askedFront.value, rear: askedRear.value },
    { front: fittedFront.value, rear: fittedRear.value },
  );
  // All-wheel drives and indirect systems feel less than this (common practice).
  if (Math.abs(share) < 0.01) return null;
  return (
    <Notice tone="note">
      Front turns {Math.abs(share * 100).toFixed(1)} % {share > 0 ? 'slower' : 'faster'} against the rear than
      the placard's sizes do: an all-wheel drive and an indirect system feel that.
    </Notice>
  );
}
