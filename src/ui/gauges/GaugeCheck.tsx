import { useEffect, useMemo, useState } from 'react';
import { v7 as newKey } from 'uuid';
import { z } from 'zod';
import { allowedErrorKPa, calibrationOf, checkPlanKPa, type Instrument } from '../../core/gauge';
import { checkPointSchema } from '../../core/gauge/schema';
import { figure, format, formatDifference, parse, pressure, type UnitChoice } from '../../core/units';
import { ask } from '../api';
import { Button } from '../kit/Button';
import { Field } from '../kit/Field';
import { Notice } from '../kit/Notice';
import { ErrorChart } from './ErrorChart';
import styles from './Gauges.module.css';
import { calibrationWords } from './Gauges';

/** Five points going up and the same coming down. */
const plan = [
  ...checkPlanKPa.map((kPa) => ({ way: 'up' as const, kPa })),
  ...[...checkPlanKPa].reverse().map((kPa) => ({ way: 'down' as const, kPa })),
];

/** What was typed so far: kept on this device, so that a check that was broken off goes on. */
const draftSchema = z.object({
  key: z.string(),
  reference: z.string(),
  uncertainty: z.string(),
  points: z.array(checkPointSchema),
});
type Draft = z.infer<typeof draftSchema>;

function draftFrom(kept: string): Draft | undefined {
  try {
    return draftSchema.safeParse(JSON.parse(kept)).data;
  } catch {
    return undefined;
  }
}

/** A small guided job: bring the reference to each point, type what both show, see the error grow into a picture. */
export function GaugeCheck({ gauge, units }: { gauge: Instrument; units: UnitChoice }) {
  const storage = `hacienda.check.${gauge.id}`;
  const last = gauge.checks.at(-1);
  const [draft, setDraft] = useState<Draft>(() => ({
    key: '',
    reference: last?.reference ?? '',
    uncertainty: figure(pressure, last?.referenceUncertaintyKPa ?? 1, units.pressure),
    points: [],
  }));
  const [referenceTyped, setReferenceTyped] = useState('');
  const [readTyped, setReadTyped] = useState('');
  const [errors, setErrors] = useState<{
    reference?: string;
    uncertainty?: string;
    at?: string;
    read?: string;
  }>({});
  const [problem, setProblem] = useState<string>();
  const [busy, setBusy] = useState(false);
  const [done, setDone] = useState<Instrument>();

  useEffect(() => {
    const kept = draftFrom(localStorage.getItem(storage) ?? '');
    // eslint-disable-next-line react-hooks/set-state-in-effect -- the browser's storage exists from here on
    if (kept) setDraft(kept);
  }, [storage]);
  const keep = (next: Draft) => {
    setDraft(next);
    localStorage.setItem(storage, JSON.stringify(next));
  };

  const step = plan[draft.points.length];
  const check = useMemo(
    () => ({ ...draft, at: '', by: '', referenceUncertaintyKPa: 0, points: draft.points }),
    [draft],
  );
  const calibration = calibrationOf(check, gauge.resolutionKPa);

  const takePoint = () => {
    if (!step) return;
    const at = referenceTyped.trim() === '' ? undefined : parse(pressure, referenceTyped, units.pressure);
    const read = parse(pressure, readTyped, units.pressure);
    const wrong: typeof errors = {};
    if (at && !at.ok) wrong.at = at.problem.message;
    if (!read.ok) wrong.read = read.problem.message;
    setErrors(wrong);
    if (!read.ok || (at && !at.ok)) return;
    const referenceKPa = at?.value.base ?? step.kPa;
    keep({ ...draft, points: [...draft.points, { way: step.way, referenceKPa, readKPa: read.value.base }] });
    setReferenceTyped('');
    setReadTyped('');
  };

  const store = async () => {
    const uncertainty = parse(pressure, draft.uncertainty, units.pressure);
    const wrong: typeof errors = {};
    if (draft.reference.trim() === '') wrong.reference = 'Say what it was compared with.';
    if (!uncertainty.ok) wrong.uncertainty = uncertainty.problem.message;
    setErrors(wrong);
    if (!uncertainty.ok || wrong.reference) return;
    const key = draft.key || newKey();
    keep({ ...draft, key });
    setBusy(true);
    const stored = await ask('recordCheck', {
      id: gauge.id,
      body: {
        key,
        reference: draft.reference,
        referenceUncertaintyKPa: uncertainty.value.base,
        points: draft.points,
      },
    });
    setBusy(false);
    if (!stored.ok) return setProblem(stored.problem.message);
    localStorage.removeItem(storage);
    setDone(stored.value);
  };

  if (done) {
    const made = done.checks.at(-1);
    const found = made && calibrationOf(made, done.resolutionKPa);
    return (
      <main className={styles.gauges}>
        <h1>{gauge.name}</h1>
        {found && (
          <Notice tone={found.withinTolerance ? 'right' : 'wrong'}>
            <b>{found.withinTolerance ? 'Good.' : 'Out of tolerance: read with another gauge.'}</b>{' '}
            {calibrationWords(found, units)}
            {!found.withinTolerance && ' What it read since its last good check is marked on the open jobs.'}
          </Notice>
        )}
        {made && <ErrorChart name={gauge.name} points={made.points} calibration={found} units={units} />}
        <p>
          <a href="/gauges">Back to the gauges</a>
        </p>
      </main>
    );
  }
  return (
    <main className={styles.gauges}>
      <h1>Check of {gauge.name}</h1>
      <div className={styles.check}>
        <form
          className={styles.form}
          onSubmit={(event) => {
            event.preventDefault();
            void (step ? takePoint() : store());
          }}
        >
          <p className={styles.soft}>
            Point {Math.min(draft.points.length + 1, plan.length)} of {plan.length}
          </p>
          {step ? (
            <>
              <p className={styles.lead}>
                {step.way === 'up' ? 'Let air in up to' : 'Let air out down to'}{' '}
                <b className="figures">{format(pressure, step.kPa, units.pressure)}</b> on the reference,
                never past it and back.
              </p>
              <Field
                key={`read ${draft.points.length}`}
                label={`The gauge reads, ${units.pressure}`}
                inputMode="decimal"
                value={readTyped}
                onValue={setReadTyped}
                error={errors.read}
                autoFocus // eslint-disable-line jsx-a11y/no-autofocus -- the page was opened to type this
              />
              <Field
                label={`The reference shows, ${units.pressure}`}
                hint="Leave empty where it is that figure exactly."
                inputMode="decimal"
                placeholder={figure(pressure, step.kPa, units.pressure)}
                value={referenceTyped}
                onValue={setReferenceTyped}
                error={errors.at}
              />
              <Button weight="main" type="submit" disabled={readTyped.trim() === ''}>
                Take this point
              </Button>
            </>
          ) : (
            <>
              <Field
                label="Compared with"
                hint="The reference, and the number of its certificate"
                value={draft.reference}
                onValue={(reference) => keep({ ...draft, reference })}
                error={errors.reference}
              />
              <Field
                label={`The reference is good to ±, ${units.pressure}`}
                value={draft.uncertainty}
                onValue={(uncertainty) => keep({ ...draft, uncertainty })}
                error={errors.uncertainty}
              />
              {problem && <Notice tone="wrong">{problem}</Notice>}
              <Button weight="main" type="submit" busy={busy ? 'Saving…' : undefined}>
                Save this check
              </Button>
            </>
          )}
          {draft.points.length > 0 && (
            <Button onClick={() => keep({ ...draft, points: draft.points.slice(0, -1) })}>
              Take the last point back
            </Button>
          )}
        </form>
        <div className={styles.form}>
          {draft.points.length > 1 ? (
            <ErrorChart name={gauge.name} points={draft.points} calibration={calibration} units={units} />
          ) : (
            <p className={styles.soft}>
              It may be off by{' '}
              {formatDifference(pressure, allowedErrorKPa(100), units.pressure).replace('+', '± ')} up to 400
              kPa (EN 12645). The error is drawn here as the points come in.
            </p>
          )}
          {!step && calibration && <p>{calibrationWords(calibration, units)}</p>}
        </div>
      </div>
    </main>
  );
}
