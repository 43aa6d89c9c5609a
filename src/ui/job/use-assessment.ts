import { useEffect, useRef, useState } from 'react';
import type { Assessment } from '../../core/assessment';
import type { Job } from '../../core/job';
import type { Experience } from '../../core/diagnosis';

interface Judged {
  job: Job;
  assessment: Assessment;
}

/**
 * The assessment of a job as this device knows it, worked out in a worker as each reading arrives: what is
 * still on its way to the server is judged as well. Until then, and where there is no worker, what was judged
 * last stands, together with the job it speaks of.
 */
export function useAssessment(job: Job, stored: Judged, experience?: Experience): Judged {
  const [judged, setJudged] = useState<Judged>();
  const worker = useRef<Worker>(undefined);
  const turn = useRef(0);
  const ahead = job !== stored.job;

  useEffect(() => {
    if (!ahead) return undefined;
    worker.current ??= new Worker(new URL('../../workers/assess.ts', import.meta.url), { type: 'module' });
    const { current } = worker;
    turn.current += 1;
    const mine = turn.current;
    const listen = ({ data }: MessageEvent<{ turn: number; assessment: Assessment }>) => {
      if (data.turn === mine) setJudged({ job, assessment: data.assessment });
    };
    current.addEventListener('message', listen);
    current.postMessage({ turn: mine, job, experience });
    return () => current.removeEventListener('message', listen);
  }, [ahead, job, experience]);

  useEffect(
    () => () => {
      worker.current?.terminate();
      worker.current = undefined;
    },
    [],
  );
  return ahead && judged?.job === job ? judged : stored;
}
