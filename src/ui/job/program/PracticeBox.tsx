import { useCallback, useEffect, useState } from 'react';
import type { AnswerOf } from '../../../contract';
import { groupedId } from '../../../core/names/sensor-id';
import type { Position } from '../../../core/names/wheel';
import { ask } from '../../api';
import { Button } from '../../kit/Button';
import styles from './ProgramDialog.module.css';

type Sensors = AnswerOf<'practiceBox'>['sensors'];

/** The box of simulated sensors: what hands do with real ones. */
export function PracticeBox({ jobId, wheel }: { jobId: string; wheel: Position }) {
  const [sensors, setSensors] = useState<Sensors>([]);
  const [said, setSaid] = useState<string>();
  const look = useCallback(async () => {
    const box = await ask('practiceBox');
    if (box.ok) setSensors(box.value.sensors);
  }, []);
  useEffect(() => {
    // eslint-disable-next-line react-hooks/set-state-in-effect -- what is in the box is asked once the dialog is there
    void look();
  }, [look]);
  const lies = sensors.filter(({ inCradle, fitted }) => inCradle && !fitted);
  const lay = async (serials: string[]) => {
    const laid = await ask('practise', { id: jobId, body: { do: 'cradle', serials } });
    setSaid(laid.ok ? undefined : laid.problem.message);
    await look();
  };
  const fit = async (serial: string) => {
    const fitted = await ask('practise', { id: jobId, body: { do: 'fit', wheel, serial } });
    setSaid(fitted.ok ? `${serial} is in ${wheel} now.` : fitted.problem.message);
    await look();
  };
  return (
    <fieldset className={styles.box}>
      <legend>Simulated sensors</legend>
      <ul>
        {sensors
          .filter(({ fitted }) => !fitted)
          .map(({ serial, part, id, inCradle }) => (
            <li key={serial}>
              <label>
                <input
                  type="checkbox"
                  checked={inCradle}
                  onChange={({ target }) =>
                    void lay(
                      target.checked
                        ? [...lies.map((one) => one.serial), serial]
                        : lies.map((one) => one.serial).filter((one) => one !== serial),
                    )
                  }
                />
                {serial}, {part}, {id === null ? 'blank' : <span className="figures">{groupedId(id)}</span>}
                {inCradle && ', in the cradle'}
              </label>
            </li>
          ))}
      </ul>
      {lies.length === 1 && lies[0] && (
        <Button onClick={() => void fit(lies[0]?.serial ?? '')}>
          Put {lies[0].serial} into {wheel}
        </Button>
      )}
      {said && <p role="status">{said}</p>}
    </fieldset>
  );
}
