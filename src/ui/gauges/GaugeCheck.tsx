import { allowedErrorKPa, calibrationOf, type Instrument } from '../../core/tire/gauge';
import { figure, format, formatDifference, pressure, type Notation } from '../../core/measure/units';
import { Button } from '../kit/Button';
import { Field } from '../kit/Field';
import { Notice } from '../kit/Notice';
import { ErrorChart } from './ErrorChart';
import styles from './Gauges.module.css';
import { calibrationWords } from './Gauges';
import { plan, useGaugeCheck } from './use-gauge-check';

type Check = ReturnType<typeof useGaugeCheck>;

/** A small guided job: bring the reference to each point, type what both show, see the error grow into a picture. */
export function GaugeCheck({ gauge, units }: { gauge: Instrument; units: Notation }) {
  const check = useGaugeCheck(gauge, units);
  const { draft, keep, step, calibration, takePoint, store, done } = check;
  if (done) return <Checked gauge={done} units={units} />;
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
            <Point check={check} step={step} units={units} />
          ) : (
            <Reference check={check} units={units} />
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
              It may be off by {formatDifference(pressure, allowedErrorKPa(100), units).replace('+', '± ')} up
              to 400 kPa (EN 12645). The error is drawn here as the points come in.
            </p>
          )}
          {!step && calibration && <p>{calibrationWords(calibration, units)}</p>}
        </div>
      </div>
    </main>
  );
}

/** One point: the reference is brought to it, and both are typed. */
function Point({
  check: { draft, readTyped, setReadTyped, referenceTyped, setReferenceTyped, errors },
  step,
  units,
}: {
  check: Check;
  step: NonNullable<Check['step']>;
  units: Notation;
}) {
  return (
    <>
      <p className={styles.lead}>
        {step.way === 'up' ? 'Let air in up to' : 'Let air out down to'}{' '}
        <b className="figures">{format(pressure, step.kPa, units)}</b> on the reference, never past it and
        back.
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
        placeholder={figure(pressure, step.kPa, units)}
        value={referenceTyped}
        onValue={setReferenceTyped}
        error={errors.at}
      />
      <Button weight="main" type="submit" disabled={readTyped.trim() === ''}>
        Take this point
      </Button>
    </>
  );
}

/** What the gauge was compared with, once all points are there. */
function Reference({
  check: { draft, keep, errors, problem, busy },
  units,
}: {
  check: Check;
  units: Notation;
}) {
  return (
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
  );
}

/** What came of it. */
function Checked({ gauge: done, units }: { gauge: Instrument; units: Notation }) {
  const made = done.checks.at(-1);
  const found = made && calibrationOf(made, done.resolutionKPa);
  return (
    <main className={styles.gauges}>
      <h1>{done.name}</h1>
      {found && (
        <Notice tone={found.withinTolerance ? 'right' : 'wrong'}>
          <b>{found.withinTolerance ? 'Good.' : 'Out of tolerance: read with another gauge.'}</b>{' '}
          {calibrationWords(found, units)}
          {!found.withinTolerance && ' What it read since its last good check is marked on the open jobs.'}
        </Notice>
      )}
      {made && <ErrorChart name={done.name} points={made.points} calibration={found} units={units} />}
      <p>
        <a href="/gauges">Back to the gauges</a>
      </p>
    </main>
  );
}
