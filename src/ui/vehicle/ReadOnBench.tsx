import { benchTriggers } from '../../core/names/kinds';
import { useState } from 'react';
import { benchReading, benchWords, type BenchReading } from '../../core/records/wheel-set/bench';
import { roadWheels, type Position } from '../../core/names/wheel';
import { ask } from '../api';
import { Button } from '../kit/Button';
import { Notice } from '../kit/Notice';
import styles from './Vehicle.module.css';

/** After a silent try another trigger. */

interface ReadOnBenchProps {
  vehicleId: string;
  idAt: (wheel: Position) => string | undefined;
  onHeard: (wheel: Position, sensorId: string) => void;
}

/** The wheels of a set before it goes onto the car: each woken where it lies, one answer each. */
export function ReadOnBench({ vehicleId, idAt, onHeard }: ReadOnBenchProps) {
  const [readings, setReadings] = useState<Partial<Record<Position, BenchReading>>>({});
  const [silent, setSilent] = useState<Partial<Record<Position, number>>>({});
  const [waking, setWaking] = useState<Position>();
  const [problem, setProblem] = useState<string>();
  const wake = async (wheel: Position) => {
    const tries = silent[wheel] ?? 0;
    setWaking(wheel);
    setProblem(undefined);
    const trigger = benchTriggers[tries % benchTriggers.length] ?? 'pulsed';
    const woken = await ask('readOnBench', { id: vehicleId, body: { wheel, trigger } });
    setWaking(undefined);
    if (!woken.ok) return setProblem(woken.problem.message);
    const others = roadWheels.flatMap((other) => {
      const id = other === wheel ? undefined : idAt(other);
      return id ? [[other, id] as const] : [];
    });
    const reading = benchReading(woken.value.replies, Object.fromEntries(others));
    setReadings((now) => ({ ...now, [wheel]: reading }));
    setSilent((now) => ({ ...now, [wheel]: reading.kind === 'silent' ? tries + 1 : 0 }));
    if (reading.kind === 'heard') onHeard(wheel, reading.reply.id);
  };
  return (
    <fieldset className={styles.bench}>
      <legend>
        <b>Read on the bench</b>
      </legend>
      <p>One wheel at a time, half a metre from the others; sensors that lie closer answer together.</p>
      <ul>
        {roadWheels.map((wheel) => {
          const reading = readings[wheel];
          return (
            <li key={wheel}>
              <Button
                busy={waking === wheel ? 'Waking…' : undefined}
                disabled={waking !== undefined}
                onClick={() => void wake(wheel)}
              >
                Wake {wheel}
              </Button>
              <span role="status">{reading && benchWords(reading)}</span>
            </li>
          );
        })}
      </ul>
      {problem && <Notice tone="wrong">{problem}</Notice>}
    </fieldset>
  );
}
