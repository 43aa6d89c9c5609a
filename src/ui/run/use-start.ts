import { useState } from 'react';
import { ask } from '../api';
import { useDeeds } from '../deeds';

/**
 * Starts a relearn and goes there; pressed twice it is started once. What must have arrived before it, such as how the
 * last one ended, is waited for.
 */
export function useStart(jobId: string, before: () => Promise<void> = () => Promise.resolve()) {
  const { once, busy, problem } = useDeeds();
  /** The page is on its way. */
  const [begun, setBegun] = useState(false);
  const start = (asked: { procedure: string } | { retryOf: string }) =>
    void once(
      'start a relearn',
      async (key) => {
        await before();
        return ask('startRun', { id: jobId, body: { key, ...asked } });
      },
      'Starting…',
    ).then((answer) => {
      if (!answer?.ok) return;
      setBegun(true);
      window.location.assign(`/runs/${answer.value.key}`);
    });
  return { starting: begun ? 'Starting…' : busy, problem: problem?.message, start };
}
