import { useState } from 'react';
import { lampWords } from '../../core/job/words';
import { proofWords } from '../../core/relearn/procedure/words';
import { openProof, provedWheels, wantedId } from '../../core/relearn/run';
import { groupedId } from '../../core/names/sensor-id';
import { parse, pressure, type Notation } from '../../core/measure/units';
import { inWalkingOrder, listWheels, positionName, type Position } from '../../core/names/wheel';
import { Button } from '../kit/Button';
import { Field } from '../kit/Field';
import { optionsFrom } from '../kit/options';
import { IdField } from '../parts/IdField';
import { ExpectedId } from './Before';
import styles from './Run.module.css';
import type { RunOnScreen } from './use-run';

/** What is still to be seen before anybody may say that it worked. */
export function Prove({ on, units }: { on: RunOnScreen; units: Notation }) {
  const { procedure, run } = on;
  const open = openProof(procedure, run);
  return (
    <div className={styles.open}>
      <h2 className={styles.instruction}>Prove it</h2>
      {procedure.proof
        .filter((kind) => !open.includes(kind))
        .map((kind) => (
          <p key={kind}>Seen: {proofWords[kind]}.</p>
        ))}
      {open.includes('registry') && <Registry on={on} />}
      {open.includes('lamp') && <Lamp on={on} />}
      {open.includes('live') && <Live on={on} units={units} />}
    </div>
  );
}

function Registry({ on }: { on: RunOnScreen }) {
  const { procedure, run, view, act, busy, tell } = on;
  const wheels = provedWheels(procedure, run);
  const [typed, setTyped] = useState<Partial<Record<Position, string>>>();
  const missing = wheels.filter((wheel) => wantedId(run, wheel) === undefined);
  const given = typed && wheels.every((wheel) => (typed[wheel] ?? '').trim() !== '');
  return (
    <section className={styles.proof}>
      <h3>What the car holds</h3>
      {missing.length > 0 && <Missing on={on} wheels={missing} />}
      {view.devices.lead && (
        <Button
          {...(missing.length === 0 && { weight: 'main', 'data-main': true, className: styles.main })}
          busy={busy}
          onClick={() => void act('Reading the car…', 'readInRun', { what: 'registry' })}
        >
          Read the car
        </Button>
      )}
      {typed ? (
        <form
          className={styles.typed}
          onSubmit={(event) => {
            event.preventDefault();
            const entries = inWalkingOrder(Object.keys(typed) as Position[]).map((wheel) => {
              const id = typed[wheel]?.trim() ?? '';
              return { wheel, id: /^(none|-+)$/i.test(id) ? null : id };
            });
            tell({ event: 'registry', entries });
          }}
        >
          <p className={styles.soft}>
            As the car’s menu or another tool shows it; “none” where it holds none.
          </p>
          {wheels.map((wheel) => (
            <IdField
              key={wheel}
              label={`${wheel}, ${positionName[wheel]}`}
              value={typed[wheel] ?? ''}
              onValue={(id) => setTyped({ ...typed, [wheel]: id })}
              digits={view.idDigits}
              known={wantedId(run, wheel)}
            />
          ))}
          <Button type="submit" disabled={!given}>
            This is what it holds
          </Button>
        </form>
      ) : (
        <Button onClick={() => setTyped({})} {...(!view.devices.lead && { 'data-main': true })}>
          Type what the car holds
        </Button>
      )}
      <dl className={styles.ids}>
        {wheels.map((wheel) => {
          const id = wantedId(run, wheel);
          return (
            id !== undefined && (
              <div key={wheel}>
                <dt>{wheel}</dt>
                <dd className="figures">{groupedId(id)}</dd>
              </div>
            )
          );
        })}
      </dl>
    </section>
  );
}

/** Wheels of which nobody knows what the car should hold there: its sensor is woken now, or its ID typed. */
function Missing({
  on: { view, act, busy, tell },
  wheels,
}: {
  on: RunOnScreen;
  wheels: readonly Position[];
}) {
  const [woken, setWoken] = useState<readonly Position[]>([]);
  const unclear = wheels.filter((wheel) => woken.includes(wheel));
  return (
    <section className={styles.missing}>
      <h3>Not known what it should hold: {listWheels(wheels)}</h3>
      <p>
        Nobody heard these sensors. Wake them now or type their IDs; until then reading the car proves
        nothing.
      </p>
      {view.devices.tool && (
        <div className={styles.actions}>
          {wheels.map((wheel) => (
            <Button
              key={wheel}
              busy={busy}
              onClick={() =>
                void act(`Waking ${wheel}…`, 'wakeInRun', { wheel, trigger: 'pulsed' }).then(
                  (isDone) => isDone && setWoken((before) => [...before, wheel]),
                )
              }
            >
              Wake {wheel}
            </Button>
          ))}
        </div>
      )}
      {unclear.length > 0 && (
        <p role="status">Nothing answered at {listWheels(unclear)}, or more than one sensor did.</p>
      )}
      <details open={!view.devices.tool}>
        <summary>Type their IDs</summary>
        {wheels.map((wheel) => (
          <ExpectedId
            key={wheel}
            wheel={wheel}
            id={undefined}
            digits={view.idDigits}
            onId={(id) => tell({ event: 'expect', ids: { [wheel]: id } })}
          />
        ))}
      </details>
    </section>
  );
}

function Lamp({ on: { tell } }: { on: RunOnScreen }) {
  return (
    <section className={styles.proof}>
      <h3>Its lamp</h3>
      <p className={styles.soft}>Ignition off, then on: it lights for its check, and then?</p>
      <div className={styles.actions}>
        {optionsFrom(lampWords).map(({ value, label }) => (
          <Button key={value} onClick={() => tell({ event: 'lamp', state: value })}>
            {value === 'off' ? 'goes off' : label}
          </Button>
        ))}
      </div>
    </section>
  );
}

function Live({ on, units }: { on: RunOnScreen; units: Notation }) {
  const { procedure, run, view, act, busy, tell } = on;
  const open = provedWheels(procedure, run).filter((wheel) => !run.proved.live.includes(wheel));
  const [typed, setTyped] = useState<Partial<Record<Position, string>>>({});
  return (
    <section className={styles.proof}>
      <h3>The pressures it shows</h3>
      <p className={styles.soft}>
        Standing, most sensors sleep: drive above the wake speed, a passenger reads. Still without:{' '}
        {open.join(', ')}.
      </p>
      {view.devices.lead && (
        <Button busy={busy} onClick={() => void act('Reading the car…', 'readInRun', { what: 'registry' })}>
          Read them over the lead
        </Button>
      )}
      {open.map((wheel) => {
        const read = parse(pressure, typed[wheel] ?? '', units.pressure);
        return (
          <form
            key={wheel}
            className={styles.inline}
            onSubmit={(event) => {
              event.preventDefault();
              if (read.ok) tell({ event: 'live', wheel, kPa: read.value.base });
            }}
          >
            <Field
              label={`${wheel}, ${units.pressure}`}
              inputMode="decimal"
              value={typed[wheel] ?? ''}
              onValue={(value) => setTyped({ ...typed, [wheel]: value })}
              error={typed[wheel] && !read.ok ? read.problem.message : undefined}
            />
            <Button type="submit" disabled={!read.ok}>
              It shows {wheel}
            </Button>
          </form>
        );
      })}
    </section>
  );
}
