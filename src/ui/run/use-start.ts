import { useRef, useState } from 'react';
import { v7 as newKey } from 'uuid';
import { ask } from '../api';

/** Starts a relearn and goes there; pressed twice it is started once. */
export function useStart(jobId: string) {
  const key = useRef(newKey());
  const [starting, setStarting] = useState<string>();
  const [problem, setProblem] = useState<string>();
  const start = (asked: { procedure: string } | { retryOf: string }) => {
    setStarting('Starting…');
    setProblem(undefined);
    void ask('startRun', { id: jobId, body: { key: key.current, ...asked } }).then((begun) => {
      if (begun.ok) return window.location.assign(`/runs/${begun.value.key}`);
      setStarting(undefined);
      setProblem(begun.problem.message);
    });
  };
  return { starting, problem, start };
}
