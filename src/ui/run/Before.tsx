import { Check, Square } from 'lucide-react';
import { useState } from 'react';
import { cautionsOfRelearn } from '../../core/visit/cautions';
import { conditionWords } from '../../core/relearn/procedure/words';
import { groupedId } from '../../core/names/sensor-id';
import { format, pressure, type Notation } from '../../core/measure/units';
import { listWheels, positionName, roadWheels, walkingOrder, type Position } from '../../core/names/wheel';
import { Button } from '../kit/Button';
import { IdField } from '../parts/IdField';
import styles from './Run.module.css';
import type { RunOnScreen } from './use-run';

/** What must hold before the first step: each confirmed by the hand that saw to it. */
export function Before({ on, units }: { on: RunOnScreen; units: Notation }) {
  const { procedure, run, tell } = on;
  const [raised, setRaised] = useState(false);
  const open = procedure.before.filter((what) => !run.confirmed.includes(what));
  // Whoever has confirmed something already has been past this.
  const { fillFirst } = on.view;
  const isToRaise = fillFirst.length > 0 && !raised && run.confirmed.length === 0;
  const filled = fillFirst
    .map(({ kPa, wheels }) => `${listWheels(wheels)} to ${format(pressure, kPa, units)}`)
    .join(', ');
  return (
    <div className={styles.open}>
      <h2 className={styles.instruction}>Make ready</h2>
      {fillFirst.length > 0 && (
        <p>
          Fill {filled} first, never above the sidewall’s maximum: each loses some. Afterwards fill all back
          to target and gauge them.
        </p>
      )}
      <ul className={styles.conditions}>
        {isToRaise && (
          <li>
            <Button className={styles.condition} data-main weight="main" onClick={() => setRaised(true)}>
              <Square aria-hidden="true" /> Filled: {filled}
            </Button>
          </li>
        )}
        {procedure.before.map((what) => {
          const confirmed = run.confirmed.includes(what);
          return (
            <li key={what} className={confirmed ? styles.confirmed : undefined}>
              {confirmed ? (
                <span>
                  <Check aria-hidden="true" /> {conditionWords(what)}
                </span>
              ) : (
                <Button
                  className={styles.condition}
                  {...(!isToRaise && what === open[0] && { 'data-main': true, weight: 'main' as const })}
                  onClick={() => tell({ event: 'confirm', what })}
                >
                  <Square aria-hidden="true" /> {conditionWords(what)}
                </Button>
              )}
            </li>
          );
        })}
      </ul>
      <Expected on={on} />
      <p className={styles.soft}>{cautionsOfRelearn(procedure).join(' ')}</p>
    </div>
  );
}

/** What the car should hold afterwards, where the procedure itself hears nothing. */
function Expected({ on: { procedure, run, view, tell } }: { on: RunOnScreen }) {
  const hears = procedure.each.some(({ do: kind }) => kind === 'wake') && procedure.wheels.length > 0;
  if (hears || !procedure.proof.includes('registry')) return null;
  const wheels: readonly Position[] =
    procedure.wheels.length > 0
      ? procedure.wheels
      : walkingOrder.filter((wheel) => run.expected[wheel] ?? roadWheels.some((road) => road === wheel));
  return (
    <section className={styles.expected}>
      <h3>What the car should hold afterwards</h3>
      <p className={styles.soft}>
        As heard on this visit, or on file. What is missing is typed: without it nothing can be proved.
      </p>
      {wheels.map((wheel) => (
        <ExpectedId
          key={wheel}
          wheel={wheel}
          id={run.expected[wheel]}
          digits={view.idDigits}
          onId={(id) => tell({ event: 'expect', ids: { [wheel]: id } })}
        />
      ))}
    </section>
  );
}

export function ExpectedId({
  wheel,
  id,
  digits,
  onId,
}: {
  wheel: Position;
  id: string | undefined;
  digits: number | undefined;
  onId: (id: string) => void;
}) {
  const [typed, setTyped] = useState<string>();
  if (id !== undefined && typed === undefined)
    return (
      <p className={styles.known}>
        <b>{wheel}</b> <span className="figures">{groupedId(id)}</span>
        <Button weight="quiet" onClick={() => setTyped('')}>
          Correct {wheel}
        </Button>
      </p>
    );
  return (
    <form
      className={styles.inline}
      onSubmit={(event) => {
        event.preventDefault();
        if (!typed?.trim()) return;
        onId(typed.trim());
        setTyped(undefined);
      }}
    >
      <IdField
        label={`ID, ${positionName[wheel]}`}
        value={typed ?? ''}
        onValue={setTyped}
        digits={digits}
        known={id}
      />
      <Button type="submit" disabled={!typed?.trim()}>
        Save {wheel}
      </Button>
    </form>
  );
}
