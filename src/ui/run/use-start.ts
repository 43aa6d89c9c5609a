import { useRef, useState } from 'react';
import { v7 as newKey } from 'uuid';
import { ask } from '../api';

/**
 * Starts a relearn and goes there; pressed twice it is started once. What must have arrived before it, such as how the
 * last one ended, is waited for.
 */
export function useStart(jobId: string, before: () => Promise<void> = () => Promise.resolve()) {
  const key = useRef(newKey());
  const [starting, setStarting] = useState<string>();
  const [problem, setProblem] = useState<string>();
  const start = (asked: { procedure: string } | { retryOf: string }) => {
    setStarting('Starting…');
    setProblem(undefined);
    void before()
      .then(() => ask('startRun', { id: jobId, body: { key: key.current, ...asked } }))
      .then((begun) => {
        if (begun.ok) return window.location.assign(`/runs/${begun.value.key}`);
        setStarting(undefined);
        setProblem(begun.problem.message);
      });
  };
  return { starting, problem, start };
}
