import { useEffect, useRef, useState } from 'react';
import { cueWords } from '../../core/relearn/procedure/words';
import { ask } from '../api';
import styles from './Run.module.css';
import type { Aloud } from './use-aloud';

const listenMs = 350;

/** The simulated car: its horn and lamps sound here, as the real ones do in the yard. */
export function PracticeCar({ runKey, aloud }: { runKey: string; aloud: Aloud }) {
  const [said, setSaid] = useState<{ n: number; cue: string }>();
  const heard = useRef<number>(undefined);
  const { play } = aloud;
  useEffect(() => {
    const listen = async () => {
      const answer = await ask('hearCar', { id: runKey });
      if (!answer.ok) return;
      const { cues } = answer.value;
      const last = cues.at(-1)?.n ?? 0;
      const before = heard.current ?? last;
      for (const cue of cues.filter(({ n }) => n > before)) {
        play(cue.cue);
        setSaid(cue);
      }
      heard.current = last;
    };
    const timer = setInterval(() => void listen(), listenMs);
    void listen();
    return () => clearInterval(timer);
  }, [runKey, play]);
  return (
    <p className={styles.practice} role="status">
      Simulated car
      {said ? (
        <>
          : <b>{cueWords(said.cue)}</b>
        </>
      ) : (
        ' says nothing yet.'
      )}
    </p>
  );
}
